import * as v from "valibot";
import type { KitWrite } from "./kitWrite";
import { isBroken, parseKitRecord, PART_LISTS, PARTS, type PartList, type PartRecord } from "./records";

/** The part of localStorage that is used. It writes synchronously, so it survives the closing of a page. */
export type LocalStore = Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">;

const PREFIX = "moss-tap-left:";
/** The key used by version 1 of the application. */
const OLD_KEY = "moss-tap-left-behind";

const keyOf = (tabId: string, kitId: string) => `${PREFIX}${tabId}:${kitId}`;

/**
 * Stores a tab's write for the next page. Returns false if the browser has no room; then only the regular
 * write remains.
 */
export function setAside(store: LocalStore | undefined, tabId: string, write: KitWrite): boolean {
  try {
    store?.setItem(keyOf(tabId, write.kitId), JSON.stringify(write));
    return store !== undefined;
  } catch (error) {
    console.info("The last edit could not be set aside.", error);
    return false;
  }
}

/** Deletes what was set aside under a key; an unavailable store keeps it. */
export function forgetAside(store: LocalStore | undefined, key: string): void {
  try {
    store?.removeItem(key);
  } catch (error) {
    console.info("What was set aside could not be removed.", error);
  }
}

/** Deletes what a tab has set aside for a kit, because it is stored. */
export function forgetOwn(store: LocalStore | undefined, tabId: string, kitId: string): void {
  forgetAside(store, keyOf(tabId, kitId));
}

const partsSchema = v.array(v.looseObject({ list: v.picklist(PART_LISTS), id: v.string() }));
const writeSchema = v.looseObject({
  kitId: v.string(),
  base: v.number(),
  by: v.exactOptional(v.string()),
  hasNewRules: v.fallback(v.boolean(), true),
  record: v.looseObject({}),
  put: v.array(v.looseObject({ list: v.picklist(PART_LISTS), id: v.string(), value: v.unknown() })),
  drop: partsSchema,
});

/**
 * Parses a write that was set aside; undefined if any part of it is invalid, in which case it is offered as
 * text.
 */
function parseWrite(text: string): KitWrite | undefined {
  const read = v.safeParse(writeSchema, JSON.parse(text));
  if (!read.success) return undefined;
  const { kitId, base, by, hasNewRules, put, drop } = read.output;
  const record = parseKitRecord(read.output.record);
  if (isBroken(record)) return undefined;
  const sound = put.filter(part => PARTS[part.list].parse(part.value).ok);
  if (sound.length < put.length) return undefined;
  const parts = sound.map(({ list, id, value }): PartRecord => ({
    kitId,
    list: list as PartList,
    id,
    value,
  }));
  return {
    kitId,
    base,
    ...(by === undefined ? {} : { by }),
    record,
    hasNewRules,
    put: parts,
    drop: drop.map(({ list, id }) => ({ list, id })),
  };
}

const oldSchema = v.looseObject({
  kit: v.looseObject({ id: v.string() }),
  takes: v.array(v.looseObject({ takeId: v.string(), take: v.unknown() })),
  goneTakeIds: v.array(v.string()),
});

/** Parses what version 1 left behind. It had no versions, so it is compared with the upgraded database. */
function parseOld(text: string): KitWrite | undefined {
  const read = v.safeParse(oldSchema, JSON.parse(text));
  const record = parseKitRecord(read.success ? read.output.kit : undefined);
  if (!read.success || isBroken(record)) return undefined;
  const kitId = record.id;
  const put = read.output.takes.map(({ takeId, take }) => ({
    kitId,
    list: "takes" as const,
    id: takeId,
    value: take,
  }));
  const drop = read.output.goneTakeIds.map(id => ({ list: "takes" as const, id }));
  const sound = put.filter(part => PARTS.takes.parse(part.value).ok);
  return { kitId, base: 1, record, hasNewRules: true, put: sound, drop };
}

/**
 * A write that was set aside, under its key. `write` is undefined if it is invalid; `text` is its raw form.
 */
export interface LeftWrite {
  readonly key: string;
  readonly text: string;
  readonly write: KitWrite | undefined;
}

function parseLeft(key: string, text: string): KitWrite | undefined {
  try {
    return key === OLD_KEY ? parseOld(text) : parseWrite(text);
  } catch (error) {
    console.info("What a page before set aside could not be read.", error);
    return undefined;
  }
}

/** Returns everything that earlier pages have set aside. Entries remain until they are deleted by key. */
export function listLeft(store: LocalStore | undefined): LeftWrite[] {
  if (!store) return [];
  try {
    const keys = Array.from({ length: store.length }, (_, k) => store.key(k));
    const own = keys.filter(key => key !== null && (key.startsWith(PREFIX) || key === OLD_KEY)) as string[];
    return own.map(key => {
      const text = store.getItem(key) ?? "";
      return { key, text, write: parseLeft(key, text) };
    });
  } catch (error) {
    console.info("What a page before set aside could not be looked for.", error);
    return [];
  }
}
