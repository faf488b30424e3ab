import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction, type StoreNames } from "idb";
import type { PartRecord } from "./records";
import type { RecordingChunk } from "./recordings";

/**
 * The current stores. Their contents are parsed like files when read; these types only describe what is
 * written.
 */
export interface Shelves extends DBSchema {
  kits: { key: string; value: { readonly id: string } };
  parts: { key: [string, string, string]; value: PartRecord; indexes: { byKit: string } };
  recordings: { key: [string, string, number]; value: RecordingChunk; indexes: { byKit: string } };
}

export type Database = IDBPDatabase<Shelves>;

const VERSION = 2;
/** A store of version 1, which the current types do not include. */
const OLD_TAKES = "takes" as "parts";

type Upgrade = IDBPTransaction<Shelves, StoreNames<Shelves>[], "versionchange">;

/**
 * Upgrades a database of version 1, in which takes had a store of their own with their index, variants and
 * layouts were part of the kit's record, and records had no version.
 */
async function bringForward(transaction: Upgrade): Promise<void> {
  interface OldTake {
    kitId: string;
    takeId: string;
    place: number;
    take: unknown;
  }
  const takes = (await transaction.objectStore(OLD_TAKES).getAll()) as unknown as OldTake[];
  const parts = transaction.objectStore("parts");
  takes.sort((a, b) => a.place - b.place);
  for (const { kitId, takeId, take } of takes)
    await parts.put({ kitId, list: "takes", id: takeId, value: take });
  interface OldKit {
    id: string;
    variants?: { id: string }[];
    layouts?: { id: string }[];
  }
  const kits = (await transaction.objectStore("kits").getAll()) as unknown as OldKit[];
  for (const { variants = [], layouts = [], ...kit } of kits) {
    for (const value of variants) await parts.put({ kitId: kit.id, list: "variants", id: value.id, value });
    for (const value of layouts) await parts.put({ kitId: kit.id, list: "layouts", id: value.id, value });
    const order = {
      takes: takes.filter(take => take.kitId === kit.id).map(take => take.takeId),
      variants: variants.map(item => item.id),
      layouts: layouts.map(item => item.id),
    };
    await transaction.objectStore("kits").put({ ...kit, version: 1, order } as { id: string });
  }
}

/**
 * Opens the database, creating or upgrading it if necessary. `onGone` is called when it was closed by the
 * browser; open it again.
 */
export function openDatabase(name: string, onGone: () => void): Promise<Database> {
  return openDB<Shelves>(name, VERSION, {
    async upgrade(db, from, _to, transaction) {
      if (from < 1) db.createObjectStore("kits", { keyPath: "id" });
      const parts = db.createObjectStore("parts", { keyPath: ["kitId", "list", "id"] });
      parts.createIndex("byKit", "kitId");
      const recordings = db.createObjectStore("recordings", { keyPath: ["kitId", "id", "place"] });
      recordings.createIndex("byKit", "kitId");
      if (from !== 1) return;
      await bringForward(transaction);
      db.deleteObjectStore(OLD_TAKES);
    },
    // A newer page wants to upgrade it: close it, and reopen it on the next request.
    blocking(_current, _blocked, event) {
      (event.target as IDBDatabase).close();
      onGone();
    },
    terminated: onGone,
  });
}
