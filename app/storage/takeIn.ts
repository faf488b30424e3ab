import { countWords, type Checks, type Kit, type Take } from "#core";
import type { Say } from "../ui/notices";
import type { ReadFile } from "#handover";
import { isBroken } from "./records";
import { documentOf, type Added, type Shelf } from "./shelf";

interface KitFile {
  readonly kit: Kit;
}
interface ChecksFile {
  readonly checks: Checks;
}
interface TakeFile {
  readonly take: Take;
}

/** What became of a kit that was read, in a sentence. */
function wordsFor({ name, became, takesAdded }: Added, asked: number): string {
  const takes = takesAdded > 0 ? `, with ${countWords(takesAdded, "take")}` : "";
  switch (became) {
    case "new":
      return `${name} is on the shelf${takes}.`;
    case "beside":
      return `A kit of that id was there and is not the same: this one stands beside it as ${name}${takes}.`;
    case "same":
      if (takesAdded > 0)
        return `${name} was on the shelf already, word for word; ${countWords(takesAdded, "take")} came to it.`;
      return `${name} is on the shelf already, word for word${asked > 0 ? ", with these takes" : ""}. Nothing was added.`;
  }
}

/** Which of the dropped kits a take belongs to: the one it names, or the only one if it names none. */
function homeOf(take: Pick<Take, "kit"> | Checks, kits: readonly Kit[]): Kit | undefined {
  if (take.kit === undefined) return kits.length === 1 ? kits[0] : undefined;
  return kits.find(kit => kit.id === take.kit);
}

/**
 * Puts what was read from files on the shelf: kits with the takes that are theirs, takes with the kits that are there.
 * Whatever finds no place is said, with what can be done about it; nothing vanishes unsaid.
 */
export async function takeIn(
  read: readonly ReadFile[],
  shelf: Shelf,
  say: Say,
  onChange: () => void,
): Promise<void> {
  const kits = read.filter((file): file is ReadFile & KitFile => file.kind === "kit").map(({ kit }) => kit);
  const takes = read
    .filter((file): file is ReadFile & TakeFile => file.kind === "take")
    .map(({ take }) => take);
  const placed = new Set<Take>();
  const lists = read
    .filter((file): file is ReadFile & ChecksFile => file.kind === "checks")
    .map(({ checks }) => checks);
  for (const kit of kits) {
    const own = takes.filter(take => homeOf(take, kits) === kit);
    for (const take of own) placed.add(take);
    const checks = lists.filter(list => homeOf(list, kits) === kit).flatMap(list => list.checks);
    const added = await shelf.add(documentOf(kit, own, checks), "read from a file");
    say({ tone: "plain", title: wordsFor(added, own.length), details: [] });
  }
  const there = (await shelf.list()).flatMap(entry => (isBroken(entry) ? [] : [entry.kit]));
  for (const take of takes) {
    if (placed.has(take)) continue;
    const home = there.find(kit => kit.id === take.kit);
    if (home) await sayPlaced(take, home, shelf, say);
    else sayHomeless(take, kits, shelf, say, onChange);
  }
  for (const list of lists) if (!homeOf(list, kits)) await sayChecks(list, there, shelf, say);
  sayRest(read, say);
  onChange();
}

/** Puts a list of checks with the kit it names, and says so; or says that it names none that is here. */
async function sayChecks(list: Checks, there: readonly Kit[], shelf: Shelf, say: Say): Promise<void> {
  const home = there.find(kit => kit.id === list.kit);
  if (!home)
    return say({
      tone: "trouble",
      title: `${list.name || list.id}: these checks have no kit here, and were not taken in.`,
      details: [
        `${list.kit === undefined ? "They name no kit" : `They are for “${list.kit}”`}. Read that kit in first, or drop both files together.`,
      ],
    });
  const added = await shelf.addChecks(home.id, list.checks);
  const title = `${countWords(added, "check")} came to ${home.name}.`;
  say({ tone: "plain", title, details: [] });
}

async function sayPlaced(take: Take, home: Kit, shelf: Shelf, say: Say): Promise<void> {
  const added = await shelf.addTakes(home.id, [take]);
  const title =
    added > 0
      ? `${take.name} is with ${home.name}.`
      : `${take.name} was with ${home.name} already. Nothing was added.`;
  say({ tone: "plain", title, details: [] });
}

function sayHomeless(take: Take, kits: readonly Kit[], shelf: Shelf, say: Say, onChange: () => void): void {
  const [only] = kits.length === 1 ? kits : [];
  const named = take.kit === undefined ? "It names no kit" : `It was recorded for “${take.kit}”`;
  say({
    tone: "trouble",
    title: `${take.name} has no kit here, and was not taken in.`,
    details: [`${named}. Read that kit in first, or drop both files together.`],
    ...(only
      ? {
          action: {
            label: `Put it with ${only.name}`,
            run: () => void sayPlaced(take, only, shelf, say).then(onChange),
          },
        }
      : {}),
  });
}

/** What was not taken in at all, one word for all of it. */
function sayRest(read: readonly ReadFile[], say: Say): void {
  const layouts = read.flatMap(file => (file.kind === "layout" ? [file.layout.name] : []));
  if (layouts.length > 0)
    say({
      tone: "trouble",
      title: `${layouts.join(", ")}: ${layouts.length === 1 ? "a layout of keys" : "layouts of keys"}, not for the shelf.`,
      details: ["Open a kit and read it in at Wire, under Keys."],
    });
  const refused = read.flatMap(file => (file.kind === "refused" ? [file] : []));
  const [first] = refused;
  if (!first) return;
  const isOne = refused.length === 1;
  say({
    tone: "trouble",
    title: `${isOne ? first.name : `${refused.length} files`} ${isOne ? "was" : "were"} not read. The shelf is as it was.`,
    details: isOne
      ? first.reasons
      : refused.flatMap(({ name, reasons }) => reasons.map(reason => `${name}: ${reason}`)),
  });
}
