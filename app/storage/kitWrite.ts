import type { Database } from "./database";
import {
  packPart,
  PART_LISTS,
  type KitDocument,
  type KitRecord,
  type Part,
  type PartKey,
  type PartRecord,
  type RowOrder,
} from "./records";

/** A change of one kit and what is kept beside it, to be written whole or not at all. */
export interface KitWrite {
  readonly kitId: string;
  /** The version it was made from; 0 for a kit that is not on the shelf yet. */
  readonly base: number;
  /** The tab that made it. */
  readonly by?: string;
  /** The kit's record as it shall stand, without its version; undefined takes the kit off the shelf with all beside it. */
  readonly record: Omit<KitRecord, "version"> | undefined;
  /** Are the rules others than before, or only what is kept beside them? */
  readonly hasNewRules: boolean;
  readonly put: readonly PartRecord[];
  readonly drop: readonly PartKey[];
}

/** What came of it. `changed`: another tab has written since. `gone`: another tab has taken the kit off the shelf. */
export type KitWritten =
  | { readonly state: "written"; readonly version: number }
  | { readonly state: "changed" }
  | { readonly state: "gone" };

/** What a document needs written, seen from what was written last (`before` undefined: nothing was). */
export function diffDocuments(
  before: KitDocument | undefined,
  now: KitDocument,
): Pick<KitWrite, "put" | "drop"> & { readonly order: KitRecord["order"] } {
  const kitId = now.kit.id;
  const put: PartRecord[] = [];
  const drop: PartKey[] = [];
  for (const list of PART_LISTS) {
    const was = new Map<string, Part>((before?.[list] ?? []).map(item => [item.id, item]));
    for (const item of now[list]) {
      if (was.get(item.id) !== item) put.push({ kitId, list, id: item.id, value: item });
      was.delete(item.id);
    }
    for (const id of was.keys()) drop.push({ list, id });
  }
  const order = Object.fromEntries(PART_LISTS.map(list => [list, now[list].map(item => item.id)]));
  return { put, drop, order };
}

/** A write before it is known which version it was made from: the library knows what this tab read or wrote last. */
export type KitChange = Omit<KitWrite, "base">;

/** The change that brings a kit on the shelf from one document to another; `before` undefined puts it there. */
export function changeOf(
  before: KitDocument | undefined,
  now: KitDocument,
  beside: { readonly rows: RowOrder; readonly change: string; readonly changedAt: number },
): KitChange {
  const { order, ...parts } = diffDocuments(before, now);
  const record = { id: now.kit.id, kit: now.kit, order, ...beside };
  return { kitId: now.kit.id, record, hasNewRules: before?.kit !== now.kit, ...parts };
}

/** Two writes of one kit, the later over the earlier, as one: from where the earlier began. */
export function joinWrites(earlier: KitWrite, later: KitWrite): KitWrite {
  const keyOf = ({ list, id }: PartKey) => `${list} ${id}`;
  const put = new Map(earlier.put.map(part => [keyOf(part), part]));
  const drop = new Map(earlier.drop.map(part => [keyOf(part), part]));
  for (const part of later.put) {
    put.set(keyOf(part), part);
    drop.delete(keyOf(part));
  }
  for (const part of later.drop) {
    put.delete(keyOf(part));
    drop.set(keyOf(part), part);
  }
  const hasNewRules = earlier.hasNewRules || later.hasNewRules;
  return { ...later, base: earlier.base, hasNewRules, put: [...put.values()], drop: [...drop.values()] };
}

/** The version a kept record stands at; 0 for none. */
export function versionOf(record: unknown): number {
  if (typeof record !== "object" || record === null) return 0;
  return "version" in record && typeof record.version === "number" ? record.version : 1;
}

/** So many parts are copied into the database in one task: many long takes must not keep the page. */
const PARTS_A_TASK = 8;

/** Was the last write of a record made by the tab that made this one, right after what this one was made from? */
function followsOwn(record: unknown, { base, by }: KitWrite): boolean {
  const last = typeof record === "object" && record !== null && "by" in record ? record.by : undefined;
  return by !== undefined && last === by && versionOf(record) === base + 1;
}

/**
 * Writes in one transaction, if nobody else has written since. `isLeft`: the write was set aside when its page was left, and
 * a write of the same page that was under way then may have come through: the later one holds it too.
 * Rejects when the browser will not keep it: then nothing is written.
 */
export async function commitWrite(db: Database, write: KitWrite, isLeft = false): Promise<KitWritten> {
  const transaction = db.transaction(["kits", "parts"], "readwrite");
  const kits = transaction.objectStore("kits");
  const parts = transaction.objectStore("parts");
  const stored: unknown = await kits.get(write.kitId);
  const version = versionOf(stored);
  if (version !== write.base && !(isLeft && followsOwn(stored, write))) {
    await transaction.done;
    return { state: version === 0 ? "gone" : "changed" };
  }
  const { record } = write;
  const works: Promise<unknown>[] = [transaction.done];
  if (record) works.push(kits.put({ ...record, by: write.by, version: version + 1 } as { id: string }));
  else {
    works.push(kits.delete(write.kitId));
    for (const key of await parts.index("byKit").getAllKeys(write.kitId)) works.push(parts.delete(key));
  }
  // What is told by the last promise is said once, there: the others must not be said again by the browser.
  const add = (work: Promise<unknown>) => {
    work.catch(() => undefined);
    works.push(work);
  };
  works.forEach(work => void work.catch(() => undefined));
  for (let k = 0; k < write.put.length; k++) {
    if (k > 0 && k % PARTS_A_TASK === 0) await works.at(-1);
    add(parts.put(packPart(write.put[k]!)));
  }
  for (const part of write.drop) works.push(parts.delete([write.kitId, part.list, part.id]));
  await Promise.all(works);
  return { state: "written", version: version + 1 };
}
