import type { StoreApi } from "zustand/vanilla";
import { openDatabase, type Database } from "./database";
import { keepBoth } from "./keepBoth";
import { commitWrite, joinWrites, type KitChange, type KitWrite, versionOf } from "./kitWrite";
import {
  isBroken,
  parseKitRecord,
  parseParts,
  type Broken,
  type KitDocument,
  type KitRecord,
  PART_LISTS,
  unpackPart,
  type PartKey,
  type PartList,
  type PartRecord,
} from "./records";
import type { RecordingChunk } from "./recordings";
import { forgetAside, forgetOwn, listLeft, setAside, type LeftWrite, type LocalStore } from "./setAside";
import { createStatus, isClosed, troubleOf, type StorageStatus } from "./status";
import type { Tabs } from "./tabs";

/** The library's dependencies. All are parameters, so that two libraries can exist side by side in a test. */
export interface LibraryWorld {
  readonly name: string;
  readonly tabs: Tabs;
  readonly localStorage: LocalStore | undefined;
  readonly locks: Pick<LockManager, "request"> | undefined;
  /** Calls back after a delay; returns a function that cancels it. */
  readonly setTimer: (ms: number, run: () => void) => () => void;
  /** Yields between two slices of a long take. */
  readonly yieldToUi: () => Promise<void>;
  /** Called for writes set aside by earlier pages that cannot be written; `forget` deletes one for good. */
  readonly onUnwritable?: (left: LeftWrite, forget: () => void) => void;
  /** Opens the database; default the browser's own. */
  readonly open?: (name: string, onGone: () => void) => Promise<Database>;
}

/** A stored kit with everything beside it, and the parts that could not be read. */
export interface KeptKit {
  readonly record: KitRecord;
  readonly document: KitDocument;
  readonly broken: readonly Broken[];
}

/**
 * A write conflict with another tab. `added` is the number of copies kept beside that tab's version; `gone`
 * means it removed the kit.
 */
export type WriteConflict =
  | { readonly state: "changed"; readonly added: number }
  | { readonly state: "gone" };

/**
 * The result of a write. `held`: the browser could not store it; it is kept in memory, read from there, and
 * retried until it is stored.
 */
export type WriteAnswer = { readonly state: "written" | "held" } | WriteConflict;

/** The storage of kits, with or without a working browser storage. */
export interface Library {
  readonly status: StoreApi<StorageStatus>;
  /** Returns every kit, last changed first, then the unreadable ones. */
  readonly listKits: () => Promise<(KitRecord | Broken)[]>;
  /** Returns one kit, or undefined if there is none with that id. */
  readonly readKit: (id: string) => Promise<KeptKit | Broken | undefined>;
  /**
   * Reloads a kit after another tab has written it: reads only what that tab changed, and reuses the rest of
   * `known`. Undefined if it was removed or cannot be read.
   */
  readonly readAgain: (known: KitDocument, changed: readonly PartKey[]) => Promise<KeptKit | undefined>;
  /** Returns one part beside a kit as stored; undefined if it does not exist. */
  readonly readPart: (kitId: string, list: PartList, id: string) => Promise<unknown>;
  /**
   * Writes a change of a kit as one transaction, if nobody else has written since this tab last read or wrote
   * it; otherwise resolves the conflict by keeping both versions.
   */
  readonly write: (write: KitChange) => Promise<WriteAnswer>;
  /**
   * Keeps this tab's version of a change beside a kit that another tab wrote meanwhile. Returns the number of
   * copies kept.
   */
  readonly keepBoth: (write: KitChange) => Promise<number>;
  /**
   * Sets a write and everything held in memory aside at once, because the page may be closed; the next page
   * writes it.
   */
  readonly setAside: (write: KitChange | undefined) => void;
  /** Forgets what this tab has set aside for a kit, because it is stored. */
  readonly forgetAside: (kitId: string) => void;
  /** Writes what other pages have set aside. */
  readonly writeLeft: () => Promise<void>;
  /** Returns whether anything is held in memory because the browser could not store it. */
  readonly hasHeld: () => boolean;
  /** Adds a listener for held writes that conflict when retried; returns a function that removes it. */
  readonly onConflict: (listener: (kitId: string, second: WriteConflict) => void) => () => void;
  /** Stores a chunk of a recording; false if it could not be stored. */
  readonly addChunk: (chunk: RecordingChunk) => Promise<boolean>;
  /** Returns whether a part is stored, and not only held in memory. */
  readonly isStored: (kitId: string, list: PartList, id: string) => Promise<boolean>;
  readonly listChunks: (kitId: string) => Promise<readonly unknown[]>;
  readonly dropRecording: (kitId: string, id: string) => Promise<void>;
}

/** The time limit for opening the storage, which another tab may block; work then continues in memory. */
const OPEN_WITHIN_MS = 3000;
const RETRY_MS = 1500;
const OPENING_LOCK = "moss-tap-storage";

/** Creates a library. It opens the database on the first request. */
export function createLibrary(world: LibraryWorld): Library {
  const status = createStatus();
  const held = new Map<string, KitWrite>();
  const versions = new Map<string, number>();
  const conflictListeners = new Set<(kitId: string, second: WriteConflict) => void>();
  let opening: Promise<Database | undefined> | undefined;
  let queue: Promise<unknown> = Promise.resolve();
  let callOff: (() => void) | undefined;

  function updateStatus(): void {
    if (held.size === 0) status.setState({ trouble: undefined });
  }

  function retryLater(): void {
    callOff ??= world.setTimer(RETRY_MS, () => {
      callOff = undefined;
      void inTurn(retry);
    });
  }

  /** Runs work strictly in sequence, so that a write never overtakes an earlier one. */
  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = queue.then(work);
    queue = turn.catch(() => undefined);
    return turn;
  }

  /**
   * Writes what earlier pages have set aside; each entry is forgotten only when it is stored, or was offered
   * and dismissed.
   */
  async function writeLeft(db: Database): Promise<void> {
    for (const left of listLeft(world.localStorage)) {
      const forget = () => forgetAside(world.localStorage, left.key);
      const { write } = left;
      if (!write) {
        world.onUnwritable?.(left, forget);
        continue;
      }
      try {
        const { state } = await commitWrite(db, write, true);
        if (state === "changed") await keepBoth(db, write, world.yieldToUi);
        if (state === "gone") world.onUnwritable?.(left, forget);
        else forget();
      } catch (error) {
        console.info("What was set aside was not written.", error);
        // It is held in memory and retried; the copy remains for the next page.
        if (!held.has(write.kitId)) held.set(write.kitId, write);
        status.setState({ trouble: troubleOf(error) });
        retryLater();
      }
    }
  }

  /**
   * Opens under a lock. A page that is left while holding a lock is not frozen with a half-created database,
   * which would block the next page forever.
   */
  async function openNow(): Promise<Database> {
    const open = async () => {
      const db = await (world.open ?? openDatabase)(world.name, () => (opening = undefined));
      await writeLeft(db);
      return db;
    };
    return world.locks ? ((await world.locks.request(OPENING_LOCK, open)) as Database) : open();
  }

  function openOnce(): Promise<Database | undefined> {
    opening ??= new Promise(resolve => {
      const stop = world.setTimer(OPEN_WITHIN_MS, () => {
        status.setState({ trouble: "slow" });
        resolve(undefined);
      });
      openNow().then(
        db => {
          stop();
          opening = Promise.resolve(db);
          updateStatus();
          if (held.size > 0) retryLater();
          resolve(db);
        },
        (error: unknown) => {
          stop();
          opening = undefined;
          status.setState({ trouble: troubleOf(error) });
          resolve(undefined);
        },
      );
    });
    return opening;
  }

  /**
   * Asks the database, opened again once if the browser has closed it. Undefined if it cannot be opened.
   * Throws the storage's error.
   */
  async function withDatabase<T>(question: (db: Database) => Promise<T>): Promise<T | undefined> {
    const db = await openOnce();
    if (!db) return undefined;
    try {
      return await question(db);
    } catch (error) {
      if (!isClosed(error)) throw error;
      opening = undefined;
      const again = await openOnce();
      return again && question(again);
    }
  }

  async function commit(db: Database, write: KitWrite): Promise<WriteAnswer> {
    const written = await commitWrite(db, write);
    held.delete(write.kitId);
    updateStatus();
    if (written.state === "gone") return { state: "gone" };
    if (written.state === "changed")
      return { state: "changed", added: await keepBoth(db, write, world.yieldToUi) };
    if (write.record) versions.set(write.kitId, written.version);
    else versions.delete(write.kitId);
    const kind = write.record ? "written" : "removed";
    const changed = [...write.put, ...write.drop].map(({ list, id }) => ({ list, id }));
    world.tabs.broadcast({ kind, kitId: write.kitId, changed });
    return { state: "written" };
  }

  async function attempt(write: KitWrite): Promise<WriteAnswer> {
    try {
      const answer = await withDatabase(db => commit(db, write));
      if (answer) return answer;
    } catch (error) {
      status.setState({ trouble: troubleOf(error) });
    }
    held.set(write.kitId, write);
    retryLater();
    return { state: "held" };
  }

  async function retry(): Promise<void> {
    for (const write of [...held.values()]) {
      const answer = await attempt(write);
      if (answer.state === "held") return;
      if (answer.state === "changed" || answer.state === "gone")
        for (const listener of conflictListeners) listener(write.kitId, answer);
    }
  }

  /** Reads from the database, or returns the fallback if it is unavailable. */
  async function ask<T>(question: (db: Database) => Promise<T>, without: T): Promise<T> {
    try {
      const answer = await withDatabase(async db => ({ value: await question(db) }));
      return answer ? answer.value : without;
    } catch (error) {
      status.setState({ trouble: troubleOf(error) });
      return without;
    }
  }

  async function readParts(kitId: string): Promise<PartRecord[]> {
    const raw = await ask<PartRecord[]>(db => db.getAllFromIndex("parts", "byKit", kitId), []);
    const kept: PartRecord[] = [];
    for (const part of raw) kept.push(await unpackPart(part, world.yieldToUi));
    const write = held.get(kitId);
    if (!write) return kept;
    const isOf = (part: Pick<PartRecord, "list" | "id">) => (other: Pick<PartRecord, "list" | "id">) =>
      part.list === other.list && part.id === other.id;
    const left = kept.filter(part => !write.put.some(isOf(part)) && !write.drop.some(isOf(part)));
    return [...left, ...write.put];
  }

  return {
    status,
    async listKits() {
      const kept = await ask<unknown[]>(db => db.getAll("kits"), []);
      const sound = new Map<string, KitRecord>();
      const aside: Broken[] = [];
      for (const raw of kept) {
        const read = parseKitRecord(raw);
        if (isBroken(read)) aside.push(read);
        else sound.set(read.id, read);
      }
      for (const [id, { record }] of held) {
        if (record) sound.set(id, { ...record, version: versions.get(id) ?? 0 });
        else sound.delete(id);
      }
      return [...[...sound.values()].sort((a, b) => b.changedAt - a.changedAt), ...aside];
    },
    async readKit(id) {
      // Opening writes what earlier pages have set aside, and may have to hold it.
      if (!held.has(id)) await openOnce();
      const write = held.get(id);
      if (write && !write.record) return undefined;
      const raw = write?.record ?? (await ask<unknown>(db => db.get("kits", id), undefined));
      if (raw === undefined) {
        versions.delete(id);
        return undefined;
      }
      const record = parseKitRecord(raw);
      // An unreadable kit has a version too, so it can be removed from the shelf.
      if (!write) versions.set(id, versionOf(raw));
      if (isBroken(record)) return record;
      const { lists, broken } = parseParts(record, await readParts(id));
      return { record, document: { kit: record.kit, ...lists }, broken };
    },
    async readAgain(known, changed) {
      const { id } = known.kit;
      const record = parseKitRecord(await ask<unknown>(db => db.get("kits", id), undefined));
      if (isBroken(record)) return undefined;
      versions.set(id, record.version);
      const parts: PartRecord[] = [];
      const kept = new Map<string, unknown>();
      for (const list of PART_LISTS) {
        for (const partId of record.order[list] ?? []) {
          const item = known[list].find(other => other.id === partId);
          if (item && !changed.some(key => key.list === list && key.id === partId)) {
            kept.set(`${list} ${partId}`, item);
            continue;
          }
          const part = await ask(db => db.get("parts", [id, list, partId]), undefined);
          if (part) parts.push(await unpackPart(part, world.yieldToUi));
        }
      }
      const { lists, broken } = parseParts(record, parts, kept);
      return { record, document: { kit: record.kit, ...lists }, broken };
    },
    async readPart(kitId, list, id) {
      const own = held.get(kitId)?.put.find(part => part.list === list && part.id === id);
      if (own) return own.value;
      const part = await ask(db => db.get("parts", [kitId, list, id]), undefined);
      return part && (await unpackPart(part, world.yieldToUi)).value;
    },
    write: given =>
      inTurn(() => {
        const before = held.get(given.kitId);
        const write = { ...given, base: versions.get(given.kitId) ?? 0, by: world.tabs.tabId };
        return attempt(before ? joinWrites(before, write) : write);
      }),
    keepBoth: given =>
      inTurn(() =>
        ask(db => keepBoth(db, { ...given, base: versions.get(given.kitId) ?? 0 }, world.yieldToUi), 0),
      ),
    setAside(given) {
      const { tabId } = world.tabs;
      const all = new Map(held);
      if (given) {
        const write = { ...given, base: versions.get(given.kitId) ?? 0, by: tabId };
        const before = held.get(given.kitId);
        all.set(given.kitId, before ? joinWrites(before, write) : write);
      }
      for (const write of all.values()) setAside(world.localStorage, tabId, write);
    },
    forgetAside: kitId => forgetOwn(world.localStorage, world.tabs.tabId, kitId),
    writeLeft: () => inTurn(() => ask(writeLeft, undefined)),
    hasHeld: () => held.size > 0,
    onConflict(listener) {
      conflictListeners.add(listener);
      return () => void conflictListeners.delete(listener);
    },
    addChunk: chunk => ask(async db => (await db.put("recordings", chunk)) !== undefined, false),
    isStored: (kitId, list, id) =>
      ask(async db => (await db.getKey("parts", [kitId, list, id])) !== undefined, false),
    listChunks: kitId => ask<unknown[]>(db => db.getAllFromIndex("recordings", "byKit", kitId), []),
    dropRecording: (kitId, id) =>
      ask<unknown>(
        db => db.delete("recordings", IDBKeyRange.bound([kitId, id], [kitId, id, []])),
        undefined,
      ).then(() => undefined),
  };
}
