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
import { forgetAside, forgetOwn, listLeft, setAside, type LeftWrite, type SmallStore } from "./setAside";
import { createStatus, troubleOf, type StorageStatus } from "./status";
import type { Tabs } from "./tabs";

/** What the library stands on. Everything is handed in, so that two can stand side by side in a test. */
export interface LibraryWorld {
  readonly name: string;
  readonly tabs: Tabs;
  readonly small: SmallStore | undefined;
  readonly locks: Pick<LockManager, "request"> | undefined;
  /** Does something later; gives what calls it off. */
  readonly later: (ms: number, run: () => void) => () => void;
  /** Lets the page do what waits, between two pieces of a long take. */
  readonly rest: () => Promise<void>;
  /** Hears of writes that were set aside by pages before and cannot be written; `forget` removes one for good. */
  readonly onUnwritable?: (left: LeftWrite, forget: () => void) => void;
  /** Opens the database; the browser's own where not given. */
  readonly open?: (name: string, onGone: () => void) => Promise<Database>;
}

/** A kit with all that is kept beside it, and what of that did not read. */
export interface KeptKit {
  readonly record: KitRecord;
  readonly document: KitDocument;
  readonly broken: readonly Broken[];
}

/** What came second to another tab. `added`: so many things were kept beside what that tab wrote. `gone`: it took the kit off the shelf. */
export type Second = { readonly state: "changed"; readonly added: number } | { readonly state: "gone" };

/**
 * What became of a write. `held`: the browser would not keep it; it is kept in memory, read back from there, and tried
 * again until it is written.
 */
export type WriteAnswer = { readonly state: "written" | "held" } | Second;

/** Where kits live, whatever the browser says. */
export interface Library {
  readonly status: StoreApi<StorageStatus>;
  /** Every kit, the one changed last first, then those that do not read. */
  readonly listKits: () => Promise<(KitRecord | Broken)[]>;
  /** One kit, or undefined when there is none of that id. */
  readonly readKit: (id: string) => Promise<KeptKit | Broken | undefined>;
  /**
   * A kit read again after another tab wrote it: only what that tab changed is read anew, the rest is what was known.
   * Undefined when it is gone or does not read.
   */
  readonly readAgain: (known: KitDocument, changed: readonly PartKey[]) => Promise<KeptKit | undefined>;
  /** One thing kept beside a kit, as it was written; undefined when it is not there. */
  readonly readPart: (kitId: string, list: PartList, id: string) => Promise<unknown>;
  /**
   * Writes a change of a kit, whole or not at all, if nobody else has written since this tab last read or wrote it;
   * otherwise what it would have made is kept beside.
   */
  readonly write: (write: KitChange) => Promise<WriteAnswer>;
  /** Keeps beside a kit what a change made while another tab wrote would have made of it. Gives how many things that are. */
  readonly keepBoth: (write: KitChange) => Promise<number>;
  /**
   * The page may be gone before the next line: sets a write aside at once, and all that is held in memory, for the next
   * page to write.
   */
  readonly setAside: (write: KitChange | undefined) => void;
  /** Forgets what this tab has set aside of a kit: it is written. */
  readonly forgetAside: (kitId: string) => void;
  /** Writes what other pages have set aside. */
  readonly writeLeft: () => Promise<void>;
  /** Is anything held in memory because the browser would not keep it? */
  readonly hasHeld: () => boolean;
  /** Hears of held writes that, tried again, came second. */
  readonly onSecond: (listener: (kitId: string, second: Second) => void) => () => void;
  /** Writes a piece of a recording; false where it was not written. */
  readonly addChunk: (chunk: RecordingChunk) => Promise<boolean>;
  /** Is a part in storage, not only held in memory? */
  readonly isStored: (kitId: string, list: PartList, id: string) => Promise<boolean>;
  readonly listChunks: (kitId: string) => Promise<readonly unknown[]>;
  readonly dropRecording: (kitId: string, id: string) => Promise<void>;
}

/** How long opening may take before work goes on in memory; another tab may be holding the storage. */
const OPEN_WITHIN_MS = 3000;
const RETRY_MS = 1500;
const OPENING_LOCK = "moss-tap-storage";

/** Makes a library. Nothing is opened before the first question. */
export function createLibrary(world: LibraryWorld): Library {
  const status = createStatus();
  const held = new Map<string, KitWrite>();
  const versions = new Map<string, number>();
  const seconds = new Set<(kitId: string, second: Second) => void>();
  let opening: Promise<Database | undefined> | undefined;
  let queue: Promise<unknown> = Promise.resolve();
  let callOff: (() => void) | undefined;

  function settle(): void {
    if (held.size === 0) status.setState({ trouble: undefined });
  }

  function retryLater(): void {
    callOff ??= world.later(RETRY_MS, () => {
      callOff = undefined;
      void inTurn(retry);
    });
  }

  /** One piece of work after the other: a write never overtakes the one before it. */
  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = queue.then(work);
    queue = turn.catch(() => undefined);
    return turn;
  }

  /** Writes what pages before have set aside; each is forgotten only when it is in storage, or was offered and let go. */
  async function writeLeft(db: Database): Promise<void> {
    for (const left of listLeft(world.small)) {
      const forget = () => forgetAside(world.small, left.key);
      const { write } = left;
      if (!write) {
        world.onUnwritable?.(left, forget);
        continue;
      }
      try {
        const { state } = await commitWrite(db, write, true);
        if (state === "changed") await keepBoth(db, write, world.rest);
        if (state === "gone") world.onUnwritable?.(left, forget);
        else forget();
      } catch (error) {
        console.info("What was set aside was not written.", error);
        // It is read back from memory and tried again; the copy stays for the next page.
        if (!held.has(write.kitId)) held.set(write.kitId, write);
        status.setState({ trouble: troubleOf(error) });
        retryLater();
      }
    }
  }

  /**
   * Opens under a lock: a page that is left while it holds one is not frozen with a half-made database in its hands,
   * which would keep the next page waiting for ever.
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
      const stop = world.later(OPEN_WITHIN_MS, () => {
        status.setState({ trouble: "slow" });
        resolve(undefined);
      });
      openNow().then(
        db => {
          stop();
          opening = Promise.resolve(db);
          settle();
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

  async function attempt(write: KitWrite): Promise<WriteAnswer> {
    const db = await openOnce();
    try {
      if (!db) throw undefined;
      const written = await commitWrite(db, write);
      held.delete(write.kitId);
      settle();
      if (written.state === "gone") return { state: "gone" };
      if (written.state === "changed")
        return { state: "changed", added: await keepBoth(db, write, world.rest) };
      if (write.record) versions.set(write.kitId, written.version);
      else versions.delete(write.kitId);
      const kind = write.record ? "written" : "removed";
      const changed = [...write.put, ...write.drop].map(({ list, id }) => ({ list, id }));
      world.tabs.tell({ kind, kitId: write.kitId, changed });
      return { state: "written" };
    } catch (error) {
      held.set(write.kitId, write);
      if (db) status.setState({ trouble: troubleOf(error) });
      retryLater();
      return { state: "held" };
    }
  }

  async function retry(): Promise<void> {
    for (const write of [...held.values()]) {
      const answer = await attempt(write);
      if (answer.state === "held") return;
      if (answer.state === "changed" || answer.state === "gone")
        for (const tell of seconds) tell(write.kitId, answer);
    }
  }

  /** Reads from the database; where it cannot be asked, there is nothing but what is held. */
  async function ask<T>(question: (db: Database) => Promise<T>, without: T): Promise<T> {
    const db = await openOnce();
    try {
      return db ? await question(db) : without;
    } catch (error) {
      status.setState({ trouble: troubleOf(error) });
      return without;
    }
  }

  async function readParts(kitId: string): Promise<PartRecord[]> {
    const raw = await ask<PartRecord[]>(db => db.getAllFromIndex("parts", "byKit", kitId), []);
    const kept: PartRecord[] = [];
    for (const part of raw) kept.push(await unpackPart(part, world.rest));
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
      // Opening takes up what pages before have set aside, and may have to hold it.
      if (!held.has(id)) await openOnce();
      const write = held.get(id);
      if (write && !write.record) return undefined;
      const raw = write?.record ?? (await ask<unknown>(db => db.get("kits", id), undefined));
      if (raw === undefined) {
        versions.delete(id);
        return undefined;
      }
      const record = parseKitRecord(raw);
      // One that does not read is known by its version too: it can be taken off the shelf.
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
          if (part) parts.push(await unpackPart(part, world.rest));
        }
      }
      const { lists, broken } = parseParts(record, parts, kept);
      return { record, document: { kit: record.kit, ...lists }, broken };
    },
    async readPart(kitId, list, id) {
      const own = held.get(kitId)?.put.find(part => part.list === list && part.id === id);
      if (own) return own.value;
      const part = await ask(db => db.get("parts", [kitId, list, id]), undefined);
      return part && (await unpackPart(part, world.rest)).value;
    },
    write: given =>
      inTurn(() => {
        const before = held.get(given.kitId);
        const write = { ...given, base: versions.get(given.kitId) ?? 0, by: world.tabs.tabId };
        return attempt(before ? joinWrites(before, write) : write);
      }),
    keepBoth: given =>
      inTurn(() =>
        ask(db => keepBoth(db, { ...given, base: versions.get(given.kitId) ?? 0 }, world.rest), 0),
      ),
    setAside(given) {
      const { tabId } = world.tabs;
      const all = new Map(held);
      if (given) {
        const write = { ...given, base: versions.get(given.kitId) ?? 0, by: tabId };
        const before = held.get(given.kitId);
        all.set(given.kitId, before ? joinWrites(before, write) : write);
      }
      for (const write of all.values()) setAside(world.small, tabId, write);
    },
    forgetAside: kitId => forgetOwn(world.small, world.tabs.tabId, kitId),
    writeLeft: () => inTurn(() => ask(writeLeft, undefined)),
    hasHeld: () => held.size > 0,
    onSecond(listener) {
      seconds.add(listener);
      return () => void seconds.delete(listener);
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
