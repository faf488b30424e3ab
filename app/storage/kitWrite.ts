import type { Database } from "./database";
import {
  packPart,
  PART_LISTS,
  type KitDocument,
  type KitRecord,
  type Part,
  type PartKey,
  type PartRecord,
} from "./records";

/** A change of one kit and the parts stored beside it, written as one transaction. */
export interface KitWrite {
  readonly kitId: string;
  /** The version it is based on; 0 for a kit that is not on the shelf yet. */
  readonly base: number;
  /** The tab that made it. */
  readonly by?: string;
  /** The kit's new record, without its version; undefined removes the kit and all its parts. */
  readonly record: Omit<KitRecord, "version"> | undefined;
  /** Whether the rules changed, or only the parts beside them. */
  readonly hasNewRules: boolean;
  readonly put: readonly PartRecord[];
  readonly drop: readonly PartKey[];
}

/**
 * The result of a write. `changed`: another tab has written since. `gone`: another tab has removed the kit.
 */
export type KitWritten =
  | { readonly state: "written"; readonly version: number }
  | { readonly state: "changed" }
  | { readonly state: "gone" };

/** Returns the writes that a document needs, relative to the last stored one (`before` undefined: none). */
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

/** A write without its base version; the library knows which version this tab read or wrote last. */
export type KitChange = Omit<KitWrite, "base">;

/** Returns the change between two documents of a kit on the shelf; `before` undefined adds the kit. */
export function changeOf(
  before: KitDocument | undefined,
  now: KitDocument,
  beside: Pick<KitRecord, "rows" | "change" | "changedAt" | "checkTally">,
): KitChange {
  const { order, ...parts } = diffDocuments(before, now);
  const record = { id: now.kit.id, kit: now.kit, order, ...beside };
  return { kitId: now.kit.id, record, hasNewRules: before?.kit !== now.kit, ...parts };
}

/** Merges two writes of one kit, the later over the earlier, with the base of the earlier. */
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

/** Returns the version of a stored record; 0 for none. */
export function versionOf(record: unknown): number {
  if (typeof record !== "object" || record === null) return 0;
  return "version" in record && typeof record.version === "number" ? record.version : 1;
}

/** The number of parts written per task, so that many long takes do not block the page. */
const PARTS_A_TASK = 8;

/** Returns whether the last write of a record was made by the same tab and on the same base as this one. */
function followsOwn(record: unknown, { base, by }: KitWrite): boolean {
  const last = typeof record === "object" && record !== null && "by" in record ? record.by : undefined;
  return by !== undefined && last === by && versionOf(record) === base + 1;
}

/**
 * Writes in one transaction, if nobody else has written since the base version. `isLeft`: the write was set
 * aside when its page was closed; a write of the same page that was in progress may have completed, and this
 * one includes it. Rejects if the browser cannot store it; then nothing is written.
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
  // Per-request rejections are ignored; the transaction reports them.
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
