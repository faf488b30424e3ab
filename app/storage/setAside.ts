import * as v from "valibot";
import type { KitWrite } from "./kitWrite";
import { isBroken, parseKitRecord, PART_LISTS, PARTS, type PartList, type PartRecord } from "./records";

/** The part of the browser's small store that is used: it is written at once, so it outlives a page that is left. */
export type SmallStore = Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">;

const PREFIX = "moss-tap-left:";
/** Where the first version of the application left it. */
const OLD_KEY = "moss-tap-left-behind";

/** Puts a write where the next page finds it. False where the browser has no room: then only the ordinary writing is left to trust. */
export function setAside(store: SmallStore | undefined, tabId: string, write: KitWrite | undefined): boolean {
  try {
    if (write) store?.setItem(PREFIX + tabId, JSON.stringify(write));
    else store?.removeItem(PREFIX + tabId);
    return store !== undefined;
  } catch (error) {
    console.info("The last edit could not be set aside.", error);
    return false;
  }
}

const partsSchema = v.array(v.looseObject({ list: v.picklist(PART_LISTS), id: v.string() }));
const writeSchema = v.looseObject({
  kitId: v.string(),
  base: v.number(),
  hasNewRules: v.fallback(v.boolean(), true),
  record: v.looseObject({}),
  put: v.array(v.looseObject({ list: v.picklist(PART_LISTS), id: v.string(), value: v.unknown() })),
  drop: partsSchema,
});

/** Reads a write that was set aside, like a file: parts that do not read are left out, a record that does not read spoils it. */
function parseWrite(text: string): KitWrite | undefined {
  const read = v.safeParse(writeSchema, JSON.parse(text));
  if (!read.success) return undefined;
  const { kitId, base, hasNewRules, put, drop } = read.output;
  const record = parseKitRecord(read.output.record);
  if (isBroken(record)) return undefined;
  const sound = put.filter(part => PARTS[part.list].parse(part.value).ok);
  const parts = sound.map(({ list, id, value }): PartRecord => ({
    kitId,
    list: list as PartList,
    id,
    value,
  }));
  return { kitId, base, record, hasNewRules, put: parts, drop: drop.map(({ list, id }) => ({ list, id })) };
}

const oldSchema = v.looseObject({
  kit: v.looseObject({ id: v.string() }),
  takes: v.array(v.looseObject({ takeId: v.string(), take: v.unknown() })),
  goneTakeIds: v.array(v.string()),
});

/** What the first version left behind, brought forward. It knew no versions: it is held against what the upgrade made. */
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

/** Everything that pages before have set aside, each once; what does not read is left where it is and said. */
export function takeUp(store: SmallStore | undefined): KitWrite[] {
  if (!store) return [];
  const writes: KitWrite[] = [];
  try {
    const keys = Array.from({ length: store.length }, (_, k) => store.key(k));
    for (const key of keys) {
      if (key === null || !(key.startsWith(PREFIX) || key === OLD_KEY)) continue;
      const text = store.getItem(key) ?? "";
      store.removeItem(key);
      const write = key === OLD_KEY ? parseOld(text) : parseWrite(text);
      if (write) writes.push(write);
      else console.info("What a page before set aside could not be read.", text.slice(0, 200));
    }
  } catch (error) {
    console.info("What a page before set aside could not be read.", error);
  }
  return writes;
}
