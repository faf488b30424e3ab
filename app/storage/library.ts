import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Kit, Layout, Take } from "#core";
import { createStore } from "zustand/vanilla";
import { takeUpLeft } from "./leftBehind";

/** The rules of a kit as they once were, kept under a name to compare with. */
export interface Variant {
  readonly id: string;
  readonly name: string;
  readonly kit: Kit;
}

/** What stands beside a kit and is no rule of it: how its tape is laid out, variants and layouts of keys kept. */
export interface KitExtras {
  readonly rows?: RowOrder;
  readonly variants?: readonly Variant[];
  readonly layouts?: readonly Layout[];
}

/** Which rows of the tape are shown: all, those on which anything stirs, or those that tell what one rule does. */
export type RowsShown = "all" | "stirring" | "rule";

/** How the rows of a kit's tape are laid out: groups folded, and keys of rows in their order. */
export interface RowOrder {
  readonly folded: readonly string[];
  readonly order: readonly string[];
  /** Which are shown while a rule is being shaped ("rule" where nothing is kept), and elsewhere ("stirring"). */
  readonly inShape?: RowsShown;
  readonly elsewhere?: RowsShown;
}

/** A kit as the shelf keeps it. */
export interface KitRecord extends KitExtras {
  readonly id: string;
  readonly kit: Kit;
  /** When it was last changed, ms since 1970, and what changed, in a few words. */
  readonly changedAt: number;
  readonly change: string;
}

/** A take as the shelf keeps it, beside its kit. */
export interface TakeRecord {
  readonly kitId: string;
  readonly takeId: string;
  readonly take: Take;
  /** Its place in the kit's list. */
  readonly place: number;
}

interface Shelves extends DBSchema {
  kits: { key: string; value: KitRecord };
  takes: { key: [string, string]; value: TakeRecord; indexes: { byKit: string } };
}

/** Is work being kept by the browser, and if not, why? Screens show this at once. */
export interface StorageStatus {
  readonly isKept: boolean;
  readonly reason: string;
}

export const storageStatus = createStore<StorageStatus>(() => ({ isKept: true, reason: "" }));

/** What could not be written stays here, so that work goes on and export works. */
const unkept = { kits: new Map<string, KitRecord | null>(), takes: new Map<string, TakeRecord | null>() };

let opening: Promise<IDBPDatabase<Shelves> | undefined> | undefined;

function reportTrouble(error: unknown): void {
  const isFull = error instanceof DOMException && error.name === "QuotaExceededError";
  const reason = isFull
    ? "The browser's storage is full. Work goes on in this tab; hand it over as files to keep it."
    : "The browser keeps no storage here. Work goes on in this tab; hand it over as files to keep it.";
  storageStatus.setState({ isKept: false, reason });
}

/** How long opening may take before work goes on in memory; another tab may be holding the storage. */
const OPEN_WITHIN_MS = 3000;

/** Writes what had to be held in memory, once the storage answers after all. */
async function keepUnkept(db: IDBPDatabase<Shelves>): Promise<void> {
  for (const [id, record] of unkept.kits) await (record ? db.put("kits", record) : db.delete("kits", id));
  for (const [key, record] of unkept.takes) {
    await (record ? db.put("takes", record) : db.delete("takes", JSON.parse(key) as [string, string]));
  }
  unkept.kits.clear();
  unkept.takes.clear();
  storageStatus.setState({ isKept: true, reason: "" });
}

/** Writes what the page before had no time to write. */
async function writeLeft(db: IDBPDatabase<Shelves>): Promise<void> {
  const left = takeUpLeft();
  if (!left) return;
  // Another tab, or the page itself, may have written since: what is newer stands.
  const kept = await db.get("kits", left.kit.id);
  if (kept && kept.changedAt >= left.kit.changedAt) return;
  await db.put("kits", left.kit);
  for (const record of left.takes) await db.put("takes", record);
  for (const takeId of left.goneTakeIds) await db.delete("takes", [left.kit.id, takeId]);
}

/**
 * Opens the database under a lock: a page that is left while it holds one is not frozen with a
 * half-made database in its hands, which would keep the next page waiting for ever.
 */
async function openDatabase(): Promise<IDBPDatabase<Shelves>> {
  const open = async () => {
    const db = await openDB<Shelves>("moss-tap", 1, {
      upgrade(db) {
        db.createObjectStore("kits", { keyPath: "id" });
        db.createObjectStore("takes", { keyPath: ["kitId", "takeId"] }).createIndex("byKit", "kitId");
      },
      terminated: () => (opening = undefined),
    });
    await writeLeft(db);
    return db;
  };
  return "locks" in navigator ? await navigator.locks.request("moss-tap-storage", open) : open();
}

function openShelves(): Promise<IDBPDatabase<Shelves> | undefined> {
  opening ??= (async () => {
    try {
      const database = openDatabase();
      const waited = new Promise<undefined>(resolve => setTimeout(resolve, OPEN_WITHIN_MS));
      const db = await Promise.race([database, waited]);
      if (db) return db;
      storageStatus.setState({
        isKept: false,
        reason:
          "The browser's storage does not answer yet. Work goes on in this tab and is kept as soon as it does.",
      });
      void database.then(late => {
        opening = Promise.resolve(late);
        return keepUnkept(late);
      }, reportTrouble);
      return undefined;
    } catch (error) {
      reportTrouble(error);
      return undefined;
    }
  })();
  return opening;
}

/** Runs one piece of work on the database; when it cannot be done, `instead` keeps it in memory and the status says so. */
async function attempt<T>(work: (db: IDBPDatabase<Shelves>) => Promise<T>, instead: () => T): Promise<T> {
  const db = await openShelves();
  if (!db) return instead();
  try {
    return await work(db);
  } catch (error) {
    reportTrouble(error);
    return instead();
  }
}

const takeKey = (kitId: string, takeId: string) => JSON.stringify([kitId, takeId]);

/** Every kit, the one changed last first. */
export async function listKits(): Promise<KitRecord[]> {
  const kept = await attempt<KitRecord[]>(
    db => db.getAll("kits"),
    () => [],
  );
  const kits = new Map(kept.map(record => [record.id, record]));
  for (const [id, record] of unkept.kits) {
    if (record) kits.set(id, record);
    else kits.delete(id);
  }
  return [...kits.values()].sort((a, b) => b.changedAt - a.changedAt);
}

/** One kit, or undefined when there is none of that id. */
export async function readKit(id: string): Promise<KitRecord | undefined> {
  const held = unkept.kits.get(id);
  if (held !== undefined) return held ?? undefined;
  return attempt<KitRecord | undefined>(
    db => db.get("kits", id),
    () => undefined,
  );
}

/** Writes a kit; when the browser cannot keep it, it is held in memory. */
export async function writeKit(record: KitRecord): Promise<void> {
  await attempt<void>(
    async db => {
      await db.put("kits", record);
      unkept.kits.delete(record.id);
    },
    () => void unkept.kits.set(record.id, record),
  );
}

/** The takes of a kit, in their order. */
export async function listTakes(kitId: string): Promise<TakeRecord[]> {
  const kept = await attempt<TakeRecord[]>(
    db => db.getAllFromIndex("takes", "byKit", kitId),
    () => [],
  );
  const takes = new Map(kept.map(record => [takeKey(record.kitId, record.takeId), record]));
  for (const [key, record] of unkept.takes) {
    if (record === null) takes.delete(key);
    else if (record.kitId === kitId) takes.set(key, record);
  }
  return [...takes.values()].sort((a, b) => a.place - b.place);
}

/** Which takes differ from those kept before: the records to write, and the takes that are gone. */
export function listTakeChanges(kitId: string, takes: readonly Take[], before: readonly Take[]) {
  return {
    gone: before.filter(old => !takes.some(take => take.id === old.id)),
    changed: takes.flatMap((take, place): TakeRecord[] =>
      before[place] === take ? [] : [{ kitId, takeId: take.id, take, place }],
    ),
  };
}

/** Makes the kept takes of a kit exactly these. Only what differs from `before` is written. */
export async function writeTakes(
  kitId: string,
  takes: readonly Take[],
  before: readonly Take[],
): Promise<void> {
  const { gone, changed } = listTakeChanges(kitId, takes, before);
  await attempt<void>(
    async db => {
      const work = db.transaction("takes", "readwrite");
      await Promise.all([
        ...gone.map(take => work.store.delete([kitId, take.id])),
        ...changed.map(record => work.store.put(record)),
        work.done,
      ]);
    },
    () => {
      for (const take of gone) unkept.takes.set(takeKey(kitId, take.id), null);
      for (const record of changed) unkept.takes.set(takeKey(kitId, record.takeId), record);
    },
  );
}

/** Takes a kit and its takes off the shelf. The caller keeps them if it offers to put them back. */
export async function removeKit(id: string): Promise<void> {
  const takes = await listTakes(id);
  await writeTakes(
    id,
    [],
    takes.map(record => record.take),
  );
  await attempt<void>(
    db => db.delete("kits", id),
    () => void unkept.kits.set(id, null),
  );
}
