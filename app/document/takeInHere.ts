import { nanoid } from "nanoid";
import { countWords, foreignWords, type Assist, type Check, type Kit, type Layout, type Take } from "#core";
import type { ReadFile } from "#handover";
import { listMissing } from "../storage/missing";
import { rememberMappings, variantOf, type KitDocument, type Variant } from "../storage/records";
import { linesLeftOut, type TakenLine } from "../storage/takenIn";
import type { Workbench } from "./workbench";

/** Returns the items a list lacks, each with a unique id. */
function withFreeIds<T extends { readonly id: string; readonly name: string }>(
  items: readonly T[],
  there: readonly T[],
): Map<T, T> {
  const taken = new Set(there.map(({ id }) => id));
  return new Map(
    listMissing(items, there).map(item => {
      const id = taken.has(item.id) ? nanoid(8) : item.id;
      taken.add(id);
      return [item, { ...item, id }];
    }),
  );
}

/** The documents to import into an open kit, by list. */
interface Incoming {
  readonly takes: Map<Take, Take>;
  /** By the rules as they were read. */
  readonly variants: Map<Kit, Variant>;
  readonly layouts: Map<Layout, Layout>;
  readonly checks: Map<Check, Check>;
  readonly assists: Map<Assist, Assist>;
}

/** Returns the variants of the open kit that it lacks. */
function incomingVariants(read: readonly ReadFile[], { kit, variants }: KitDocument): Map<Kit, Variant> {
  const own = read.flatMap(file => (file.kind === "variant" && file.kit.id === kit.id ? [file.kit] : []));
  const readOf = new Map(own.map(rules => [variantOf(rules, kit), rules]));
  const fresh = withFreeIds([...readOf.keys()], variants);
  return new Map([...fresh].map(([item, variant]) => [readOf.get(item)!, variant]));
}

function incomingOf(read: readonly ReadFile[], document: KitDocument): Incoming {
  return {
    takes: withFreeIds(
      read.flatMap(file => (file.kind === "take" ? [file.take] : [])),
      document.takes,
    ),
    variants: incomingVariants(read, document),
    layouts: withFreeIds(
      read.flatMap(file => (file.kind === "layout" ? [file.layout] : [])),
      document.layouts,
    ),
    checks: withFreeIds(
      read.flatMap(file => (file.kind === "checks" ? file.checks.checks : [])),
      document.checks,
    ),
    assists: withFreeIds(
      read.flatMap(file => (file.kind === "assists" ? file.assists.assists : [])),
      document.kit.assists ?? [],
    ),
  };
}

/** Returns the result line of one document. */
function lineFor(
  read: ReadFile,
  { takes, variants, layouts, checks, assists }: Incoming,
  kit: Kit,
): TakenLine | undefined {
  const lineOf = (name: string, isTaken: boolean, words = "is with the kit") => {
    return { name: name || read.name, isTaken, words: isTaken ? words : "was there already" };
  };
  switch (read.kind) {
    case "take":
      return lineOf(read.take.name, takes.has(read.take), foreignWords(read.take, kit));
    case "variant":
      return read.kit.id === kit.id
        ? lineOf(read.kit.name, variants.has(read.kit), "is among the variants")
        : {
            name: read.kit.name,
            isTaken: false,
            words: "a variant of another kit: drop its pack on the shelf",
          };
    case "layout":
      return lineOf(read.layout.name, layouts.has(read.layout));
    case "checks": {
      const added = read.checks.checks.filter(check => checks.has(check)).length;
      return lineOf(read.checks.name, added > 0, `${countWords(added, "check")} added to the kit`);
    }
    case "assists": {
      const added = read.assists.assists.filter(assist => assists.has(assist)).length;
      return lineOf(read.assists.name, added > 0, `${countWords(added, "assist")} added to the kit`);
    }
    case "mapping":
      return {
        name: read.name,
        isTaken: true,
        words: "is remembered: a recording with its columns is begun from it",
      };
    case "kit":
      return { name: read.kit.name, isTaken: false, words: "a kit of its own: drop it on the shelf" };
    case "passed":
    case "refused":
      return undefined;
  }
}

/** A line for an import that changed nothing or was not allowed; the reason is shown separately. */
const refuseHere = (line: TakenLine): TakenLine =>
  line.isTaken ? { ...line, isTaken: false, words: "the kit could not be changed in this tab" } : line;

/**
 * Imports documents into the open kit as one step of undo: takes, layouts, checks and assists that it does
 * not have yet. Opens the first imported take. Returns a line per document; nothing changes if this tab may
 * not edit.
 */
export function takeInHere(workbench: Workbench, read: readonly ReadFile[]): readonly TakenLine[] {
  const { kit, takes, layouts, checks, variants } = workbench.getState();
  if (!kit) return [];
  const incoming = incomingOf(read, { kit, takes, layouts, checks, variants });
  const fresh = [...incoming.takes.values()];
  const assists = [...incoming.assists.values()];
  const count =
    fresh.length + incoming.variants.size + incoming.layouts.size + incoming.checks.size + assists.length;
  const lines = [...read.flatMap(file => lineFor(file, incoming, kit) ?? []), ...linesLeftOut(read)];
  const mappings = read.flatMap(file => (file.kind === "mapping" ? [file.mapping] : []));
  if (count + mappings.length > 0 && !workbench.mayEdit()) return lines.map(refuseHere);
  if (mappings.length > 0) workbench.updateKitSettings(settings => rememberMappings(settings, mappings));
  if (count === 0) return lines;
  const what = `read in ${countWords(count, fresh.length === count ? "take" : "thing")}`;
  const edit = workbench.edit(what, document => ({
    ...document,
    ...(assists.length > 0
      ? { kit: { ...document.kit, assists: [...(document.kit.assists ?? []), ...assists] } }
      : {}),
    takes: [...document.takes, ...fresh],
    variants: [...document.variants, ...incoming.variants.values()],
    layouts: [...document.layouts, ...incoming.layouts.values()],
    checks: [...document.checks, ...incoming.checks.values()],
  }));
  if (!edit) return lines.map(refuseHere);
  if (fresh[0]) workbench.openTake(fresh[0].id);
  return lines;
}
