import { countWords, groupBy, type Checks, type Kit, type Take } from "#core";
import type { Notify } from "../ui/notices";
import type { ReadFile } from "#handover";
import { isBroken, NO_PARTS, variantOf } from "./records";
import { itemsOf, type Added, type Parts, type Shelf } from "./shelf";
import { linesLeftOut, type TakenLine } from "./takenIn";

interface KitFile {
  readonly kit: Kit;
}
interface ChecksFile {
  readonly checks: Checks;
}
interface TakeFile {
  readonly take: Take;
}

/** Describes the result of importing a kit. */
function wordsFor({ name, result, added }: Added, asked: number): string {
  const { length: takesAdded } = added.takes;
  const { length: count } = itemsOf(added);
  const takes = takesAdded > 0 ? `, with ${countWords(takesAdded, "take")}` : "";
  switch (result) {
    case "new":
      return `${name} is on the shelf${takes}.`;
    case "beside":
      return `A kit of that id was there and is not the same: this one is kept beside it as ${name}${takes}.`;
    case "same":
      if (count > 0) {
        const what = countWords(count, count === takesAdded ? "take" : "thing");
        return `${name} was on the shelf already, word for word; ${what} added to it.`;
      }
      return `${name} is on the shelf already, word for word${asked > 0 ? ", with these takes" : ""}. Nothing was added.`;
  }
}

/** Returns the imported kit a take belongs to: the one it names, or the only one if it names none. */
function homeOf(take: Pick<Take, "kit"> | Checks, kits: readonly Kit[]): Kit | undefined {
  if (take.kit === undefined) return kits.length === 1 ? kits[0] : undefined;
  return kits.find(kit => kit.id === take.kit);
}

/** The dependencies of importing. */
interface TakingIn {
  readonly shelf: Shelf;
  readonly notify: Notify;
  readonly onChange: () => void;
}

/**
 * Imports files to the shelf: kits with their takes, takes for existing kits. Reports whatever has no place,
 * with a cure. Returns a line per document.
 */
export async function takeIn(read: readonly ReadFile[], world: TakingIn): Promise<readonly TakenLine[]> {
  const { shelf, notify, onChange } = world;
  const kitFiles = read.filter((file): file is ReadFile & KitFile => file.kind === "kit");
  const kits = kitFiles.map(({ kit }) => kit);
  const takes = read
    .filter((file): file is ReadFile & TakeFile => file.kind === "take")
    .map(({ take }) => take);
  const lists = read
    .filter((file): file is ReadFile & ChecksFile => file.kind === "checks")
    .map(({ checks }) => checks);
  const layouts = read.flatMap(file => (file.kind === "layout" ? [file.layout] : []));
  const variants = read.flatMap(file => (file.kind === "variant" ? [file.kit] : []));
  const lines: TakenLine[] = [];
  const own = groupBy(takes, take => homeOf(take, kits));
  for (const kit of kits) {
    const checks = lists.filter(list => homeOf(list, kits) === kit).flatMap(list => list.checks);
    // A layout names no kit: it belongs to the only one imported with it.
    const parts: Parts = {
      takes: own.get(kit) ?? [],
      variants: variants.filter(({ id }) => id === kit.id).map(variant => variantOf(variant, kit)),
      checks,
      layouts: kits.length === 1 ? layouts : [],
    };
    const added = await shelf.add({ ...parts, kit }, "read from a file");
    notify({ tone: "plain", title: wordsFor(added, parts.takes.length), details: [] });
    lines.push({
      name: kit.name || kit.id,
      isTaken: added.result !== "same",
      words: RESULT_WORDS[added.result],
    });
    lines.push(...linesFor(parts, added));
  }
  const there = (await shelf.list()).flatMap(entry => (isBroken(entry) ? [] : [entry.kit]));
  const stray = own.get(undefined) ?? [];
  for (const [home, group] of groupBy(stray, take => there.find(kit => kit.id === take.kit)))
    lines.push(...(home ? await placeTakes(group, home, world) : sayHomeless(group, kits, world)));
  for (const list of lists) if (!homeOf(list, kits)) lines.push(await placeChecks(list, there, world));
  const homeless = kits.length === 1 ? [] : layouts.map(({ name }) => name);
  lines.push(
    ...homeless.map(name => ({ name, isTaken: false, words: "a layout of keys: it is read in at Wire" })),
  );
  const lost = variants.filter(({ id }) => !kits.some(kit => kit.id === id));
  lines.push(...lost.map(({ name }) => ({ name, isTaken: false, words: VARIANT_OF_ANOTHER })));
  const ofKits = read.flatMap(file =>
    file.kind === "assists" || file.kind === "mapping" ? [file.name] : [],
  );
  lines.push(...ofKits.map(name => ({ name, isTaken: false, words: OF_AN_OPEN_KIT })));
  if (ofKits.length > 0)
    notify({ tone: "trouble", title: `${ofKits.join(", ")}: not for the shelf.`, details: [OF_AN_OPEN_KIT] });
  const isUnchanged = !lines.some(({ isTaken }) => isTaken);
  sayRest(read, homeless, isUnchanged, notify);
  onChange();
  return [...lines, ...linesLeftOut(read)];
}

/** The hint for a variant whose kit did not come with it. */
const VARIANT_OF_ANOTHER =
  "a variant: its kit is not in the pack. Unpack it and read in the file itself, as a kit";

/** The hint for assists and mappings. */
const OF_AN_OPEN_KIT = "It belongs to a kit: open that, and read it in at Hand over.";

/** Returns the lines of the parts imported with a kit. */
function linesFor(given: Parts, { name, added }: Added): TakenLine[] {
  const fresh = new Set<unknown>(itemsOf(added));
  return itemsOf(given).map(item => {
    const isTaken = fresh.has(item);
    const words = isTaken ? `with ${name}` : `was with ${name} already`;
    return { name: item.name || item.id, isTaken, words };
  });
}

/** The line for each result of adding a kit. */
const RESULT_WORDS: Readonly<Record<Added["result"], string>> = {
  new: "on the shelf",
  beside: "on the shelf, beside the other of its id",
  same: "was there already, word for word",
};

/** Adds a list of checks to the kit it names and notifies, or reports that the kit does not exist. */
async function placeChecks(
  list: Checks,
  there: readonly Kit[],
  { shelf, notify }: TakingIn,
): Promise<TakenLine> {
  const name = list.name || list.id;
  const home = there.find(kit => kit.id === list.kit);
  if (!home) {
    notify({
      tone: "trouble",
      title: `${name}: these checks have no kit here, and were not taken in.`,
      details: [
        `${list.kit === undefined ? "They name no kit" : `They are for “${list.kit}”`}. Read that kit in first, or drop both files together.`,
      ],
    });
    return { name, isTaken: false, words: "its kit is not here" };
  }
  const { length: added } = (await shelf.addParts(home.id, { ...NO_PARTS, checks: list.checks })).checks;
  notify({ tone: "plain", title: `${countWords(added, "check")} added to ${home.name}.`, details: [] });
  return { name, isTaken: added > 0, words: `${countWords(added, "check")} added to ${home.name}` };
}

async function placeTakes(
  takes: readonly Take[],
  home: Kit,
  { shelf, notify }: TakingIn,
): Promise<TakenLine[]> {
  const added = new Set((await shelf.addParts(home.id, { ...NO_PARTS, takes })).takes);
  const [only] = takes;
  const already = takes.length - added.size;
  const title =
    takes.length > 1
      ? `${countWords(added.size, "take")} added to ${home.name}${already > 0 ? `; ${already} were there already` : ""}.`
      : added.size > 0
        ? `${only!.name} is with ${home.name}.`
        : `${only!.name} was with ${home.name} already. Nothing was added.`;
  notify({ tone: "plain", title, details: [] });
  return takes.map(take => ({
    name: take.name || take.id,
    isTaken: added.has(take),
    words: added.has(take) ? `with ${home.name}` : `was with ${home.name} already`,
  }));
}

/**
 * Reports takes without a kit, each with the kit it names; if there is exactly one kit here, offers to add
 * them to it.
 */
function sayHomeless(takes: readonly Take[], kits: readonly Kit[], world: TakingIn): TakenLine[] {
  const [only] = kits.length === 1 ? kits : [];
  const named = (take: Take) =>
    take.kit === undefined ? "It names no kit" : `It was recorded for “${take.kit}”`;
  const [first] = takes;
  const isOne = takes.length === 1;
  const cure = "Read that kit in first, or drop both files together.";
  world.notify({
    tone: "trouble",
    title: `${isOne ? first!.name : countWords(takes.length, "take")} ${isOne ? "has" : "have"} no kit here, and ${isOne ? "was" : "were"} not taken in.`,
    details: isOne
      ? [`${named(first!)}. ${cure}`]
      : [...takes.map(take => `${take.name}: ${named(take).toLowerCase()}.`), cure],
    ...(only
      ? {
          action: {
            label: `Put ${isOne ? "it" : "them"} with ${only.name}`,
            run: () => void placeTakes(takes, only, world).then(world.onChange),
          },
        }
      : {}),
  });
  return takes.map(take => ({ name: take.name || take.id, isTaken: false, words: "its kit is not here" }));
}

/** Reports everything that was not imported, in one notice. */
function sayRest(
  read: readonly ReadFile[],
  layouts: readonly string[],
  isUnchanged: boolean,
  notify: Notify,
): void {
  if (layouts.length > 0)
    notify({
      tone: "trouble",
      title: `${layouts.join(", ")}: ${layouts.length === 1 ? "a layout of keys" : "layouts of keys"}, not for the shelf.`,
      details: ["Open a kit and read it in at Wire, under Keys."],
    });
  const refused = read.flatMap(file => (file.kind === "refused" ? [file] : []));
  const [first] = refused;
  if (!first) return;
  const isOne = refused.length === 1;
  notify({
    tone: "trouble",
    title: `${isOne ? first.name : countWords(refused.length, "file")} ${isOne ? "was" : "were"} not read.${isUnchanged ? " The shelf is as it was." : ""}`,
    details: isOne
      ? first.reasons
      : refused.flatMap(({ name, reasons }) => reasons.map(reason => `${name}: ${reason}`)),
  });
}
