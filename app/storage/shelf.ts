import { dequal } from "dequal/lite";
import { nanoid } from "nanoid";
import { countWords, type Check, type Kit, type Layout, type Take } from "#core";
import { freshId } from "../edits/freshId";
import { changeOf } from "./kitWrite";
import type { Library, WriteAnswer } from "./library";
import { listMissing } from "./missing";
import {
  isBroken,
  NO_PARTS,
  PART_LISTS,
  DEFAULT_SETTINGS,
  type Broken,
  type KitDocument,
  type KitRecord,
  type Part,
} from "./records";

/** A kit removed from the shelf, with everything needed to restore it exactly. */
export interface TakenOff {
  readonly document: KitDocument;
  readonly beside: Pick<KitRecord, "rows" | "checkTally">;
}

/** The parts that come with a kit or are added to it. */
export type Parts = Omit<KitDocument, "kit">;

/** Returns the items of all lists. */
export function itemsOf(parts: Parts): Part[] {
  return PART_LISTS.flatMap<Part>(list => parts[list]);
}

/** Describes what was added. */
function wordsOf(parts: Parts, count: number): string {
  const { takes, checks } = parts;
  const [first] = itemsOf(parts);
  if (count === 1) return `added ${first!.name || first!.id}`;
  const noun = count === takes.length ? "take" : count === checks.length ? "check" : "thing";
  return `added ${countWords(count, noun)}`;
}

/**
 * The result of adding a kit. `new`: it was added. `beside`: its id was taken, so it was added under a new id
 * and name. `same`: an equal kit exists; the takes it lacked were added.
 */
export interface Added {
  readonly kitId: string;
  readonly name: string;
  readonly result: "new" | "beside" | "same";
  /** The added parts, as given. */
  readonly added: Parts;
}

/** The user's actions on the shelf. Documents must have been parsed before. */
export interface Shelf {
  readonly list: () => Promise<(KitRecord | Broken)[]>;
  readonly add: (document: KitDocument, change: string) => Promise<Added>;
  /** Adds the parts that an existing kit lacks; a taken id is replaced. Returns the added parts. */
  readonly addParts: (kitId: string, parts: Parts) => Promise<Parts>;
  readonly takeOff: (kitId: string) => Promise<TakenOff | undefined>;
  readonly putBack: (taken: TakenOff) => Promise<Added>;
}

/** Returns items with unique ids: the later of two duplicates gets a new one. */
function idsApart<T extends { readonly id: string }>(items: readonly T[], taken: Set<string>): T[] {
  return items.map(item => {
    const id = taken.has(item.id) ? nanoid(8) : item.id;
    taken.add(id);
    return id === item.id ? item : { ...item, id };
  });
}

/** Returns a document with unique ids in its lists and takes that name this kit. */
function tidy(document: KitDocument): KitDocument {
  const { kit } = document;
  const lists = PART_LISTS.map(list => [list, idsApart<Part>(document[list], new Set())] as const);
  const apart: KitDocument = { kit, ...(Object.fromEntries(lists) as unknown as Omit<KitDocument, "kit">) };
  const takes = apart.takes.map(take => (take.kit === kit.id ? take : { ...take, kit: kit.id }));
  return { ...apart, takes };
}

/** Creates the shelf over a library. `nowMs` is the wall clock. */
export function createShelf(library: Library, nowMs: () => number): Shelf {
  async function write(
    before: KitDocument | undefined,
    now: KitDocument,
    change: string,
    beside: TakenOff["beside"] = { rows: DEFAULT_SETTINGS },
  ): Promise<WriteAnswer> {
    return library.write(changeOf(before, now, { ...beside, change, changedAt: nowMs() }));
  }

  async function listSound(): Promise<KitRecord[]> {
    return (await library.listKits()).filter((read): read is KitRecord => !isBroken(read));
  }

  /** Returns a kit with an id and a name that no other kit on the shelf has. */
  async function besideOthers(kit: Kit): Promise<Kit> {
    const kits = await listSound();
    const names = new Set(kits.map(record => record.kit.name));
    let n = 2;
    while (names.has(`${kit.name} ${n}`)) n++;
    const id = freshId(kit.id, new Set(kits.map(record => record.id)));
    return { ...kit, id, name: names.has(kit.name) ? `${kit.name} ${n}` : kit.name };
  }

  async function addParts(kitId: string, given: Parts): Promise<Parts> {
    const kept = await library.readKit(kitId);
    if (!kept || isBroken(kept)) return NO_PARTS;
    const { document, record } = kept;
    const missing: Parts = {
      takes: listMissing(given.takes, document.takes),
      variants: listMissing(given.variants, document.variants),
      layouts: listMissing(given.layouts, document.layouts),
      checks: listMissing(given.checks, document.checks),
    };
    const count = itemsOf(missing).length;
    if (count === 0) return missing;
    const all = tidy({
      ...document,
      takes: [...document.takes, ...missing.takes],
      variants: [...document.variants, ...missing.variants],
      layouts: [...document.layouts, ...missing.layouts],
      checks: [...document.checks, ...missing.checks],
    });
    await write(document, all, wordsOf(missing, count), { rows: record.rows });
    return missing;
  }

  async function add(document: KitDocument, change: string, beside?: TakenOff["beside"]): Promise<Added> {
    const kept = await library.readKit(document.kit.id);
    if (kept === undefined) {
      const now = tidy(document);
      await write(undefined, now, change, beside);
      return { kitId: now.kit.id, name: now.kit.name, result: "new", added: document };
    }
    if (!isBroken(kept) && dequal(kept.document.kit, document.kit)) {
      const added = await addParts(document.kit.id, document);
      return { kitId: document.kit.id, name: document.kit.name, result: "same", added };
    }
    const kit = await besideOthers(document.kit);
    const now = tidy({ ...document, kit });
    await write(undefined, now, change, beside);
    return { kitId: kit.id, name: kit.name, result: "beside", added: document };
  }

  return {
    list: library.listKits,
    add: (document, change) => add(document, change),
    addParts,
    async takeOff(kitId) {
      let kept: Awaited<ReturnType<Library["readKit"]>>;
      let answer: WriteAnswer;
      do {
        kept = await library.readKit(kitId);
        answer = await library.write({ kitId, record: undefined, hasNewRules: false, put: [], drop: [] });
      } while (answer.state === "changed");
      if (!kept || isBroken(kept)) return undefined;
      const { rows, checkTally } = kept.record;
      return { document: kept.document, beside: { rows, checkTally } };
    },
    putBack: ({ document, beside }) => add(document, "put back", beside),
  };
}

/** Returns a document of a kit with these takes, checks and layouts only. */
export function documentOf(
  kit: Kit,
  takes: readonly Take[] = [],
  checks: readonly Check[] = [],
  layouts: readonly Layout[] = [],
): KitDocument {
  return { ...NO_PARTS, kit, takes, checks, layouts };
}
