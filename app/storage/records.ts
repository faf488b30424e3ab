import { nanoid } from "nanoid";
import * as v from "valibot";
import {
  formatIssue,
  mappingSchema,
  packTake,
  parseCheck,
  parseKitShape,
  parseLayout,
  parseTake,
  unpackGently,
  type Check,
  type Issue,
  type Kit,
  type Layout,
  type Mapping,
  type Result,
  type Take,
} from "#core";

/** A named earlier version of a kit's rules, for comparison. */
export interface Variant {
  readonly id: string;
  readonly name: string;
  readonly kit: Kit;
}

/** Returns a variant of a kit, made of the rules as a pack holds them: a kit with the variant's name. */
export function variantOf(read: Kit, { name }: Kit): Variant {
  return { id: nanoid(8), name: read.name, kit: { ...read, name } };
}

function parseVariant(input: unknown): Result<Variant> {
  const named = v.safeParse(v.looseObject({ id: v.string(), name: v.string() }), input);
  const read = parseKitShape(named.success ? named.output.kit : undefined);
  if (!read.ok || !named.success) return read.ok ? { ok: false, issues: [] } : read;
  const { id, name } = named.output;
  return { ok: true, value: { id, name, kit: read.value }, warnings: [] };
}

const asItIs = (item: unknown) => item;
const asItIsLater = (item: unknown) => Promise.resolve(item);

/**
 * The registry of lists stored beside a kit: how an item is parsed, and how it is stored. Another kind of
 * part is one more line: storing, following, undoing and reverting use this table.
 */
export const PARTS = {
  takes: {
    word: "take",
    parse: parseTake,
    pack: (take: unknown): unknown => packTake(take as Take),
    unpack: unpackGently,
  },
  variants: { word: "variant", parse: parseVariant, pack: asItIs, unpack: asItIsLater },
  layouts: { word: "layout of keys", parse: parseLayout, pack: asItIs, unpack: asItIsLater },
  checks: { word: "check", parse: parseCheck, pack: asItIs, unpack: asItIsLater },
} as const;

export type PartList = keyof typeof PARTS;
export const PART_LISTS = Object.keys(PARTS) as readonly PartList[];

type ItemOf<L extends PartList> = Extract<ReturnType<(typeof PARTS)[L]["parse"]>, { ok: true }>["value"];
export type Part = Take | Variant | Layout | Check;

/** A kit with everything stored beside it: the unit of opening, saving, undoing and reverting. */
export type KitDocument = { readonly kit: Kit } & { readonly [L in PartList]: readonly ItemOf<L>[] };

/** The empty lists of a document. */
export const NO_PARTS: Omit<KitDocument, "kit"> = { takes: [], variants: [], layouts: [], checks: [] };

/** Which rows of the tape are shown: all, those with any content, or those related to one rule. */
const ROWS_SHOWN = ["all", "stirring", "rule"] as const;
export type RowsShown = (typeof ROWS_SHOWN)[number];

/**
 * An arc of the stage kept for comparison: its leap and the numbers in force, its measures, and its path as
 * x, y for each frame, in tiles.
 */
const keptArcSchema = v.object({
  id: v.string(),
  move: v.string(),
  take: v.string(),
  numbers: v.string(),
  frame: v.number(),
  heightTiles: v.number(),
  farTiles: v.number(),
  airFrames: v.number(),
  way: v.array(v.number()),
});
export type KeptArc = Readonly<v.InferOutput<typeof keptArcSchema>>;

const takePlaces = v.array(v.pipe(v.number(), v.integer(), v.minValue(0)));

/** Results at a point in time: for each check the takes in which it held and failed, as places in `takes`. */
const proofPointSchema = v.object({
  /** Ms since 1970. */
  at: v.number(),
  takes: v.array(v.string()),
  checks: v.array(v.object({ id: v.string(), held: takePlaces, failed: takePlaces })),
});
export type ProofPoint = Readonly<v.InferOutput<typeof proofPointSchema>>;

const kitSettingsSchema = v.object({
  folded: v.array(v.string()),
  order: v.array(v.string()),
  /** The choice while a rule is being shaped (default "rule"), and elsewhere (default "stirring"). */
  inShape: v.exactOptional(v.picklist(ROWS_SHOWN)),
  elsewhere: v.exactOptional(v.picklist(ROWS_SHOWN)),
  /** The lines of a scripted player, with the seed and the amount of its deviations. */
  hand: v.exactOptional(
    v.object({
      lines: v.array(
        v.object({
          control: v.string(),
          for: v.string(),
          after: v.string(),
          gate: v.optional(v.string()),
          turns: v.picklist(["open", "closed"]),
          isEachTime: v.boolean(),
        }),
      ),
      seed: v.number(),
      unevenFrames: v.number(),
    }),
  ),
  /** Versions proved beside the present one: a variant by its id, or the present rules at another rate. */
  beside: v.exactOptional(
    v.array(
      v.union([
        v.object({ variant: v.string() }),
        v.object({ assist: v.string() }),
        v.object({ rate: v.number() }),
      ]),
    ),
  ),
  /** The results with which later ones are compared. */
  proofPoint: v.exactOptional(proofPointSchema),
  /** The options of the timing sheet: the variant to list changes since, by its id, and further rates. */
  sheet: v.exactOptional(
    v.object({ since: v.exactOptional(v.string()), rates: v.exactOptional(v.array(v.number())) }),
  ),
  /** The last mappings of recordings from other programs, latest first. */
  mappings: v.exactOptional(v.array(mappingSchema)),
  arcs: v.exactOptional(v.array(keptArcSchema)),
  /** Views whose first step was completed; its hint is no longer shown. */
  done: v.exactOptional(v.array(v.string())),
  /** The last number given to a recording, so that no other take gets its name. */
  takeNumber: v.exactOptional(v.pipe(v.number(), v.integer(), v.minValue(0))),
  /** The keys of warnings marked as intended; they are no longer shown. */
  wanted: v.exactOptional(v.array(v.string())),
});

/** The settings stored beside a kit: folded groups, the order of rows, warnings marked as intended. */
export type KitSettings = Readonly<v.InferOutput<typeof kitSettingsSchema>>;

/** The number of mappings stored with a kit. */
const MAPPINGS_KEPT = 12;

/** Returns settings with these mappings first, each once. */
export function rememberMappings(rows: KitSettings, mappings: readonly Mapping[]): KitSettings {
  const known = new Set(mappings.map(mapping => JSON.stringify(mapping)));
  const others = (rows.mappings ?? []).filter(other => !known.has(JSON.stringify(other)));
  const all = [...mappings, ...others].slice(0, MAPPINGS_KEPT);
  return { ...rows, mappings: all as NonNullable<KitSettings["mappings"]> };
}

export const DEFAULT_SETTINGS: KitSettings = { folded: [], order: [] };

const checkTallySchema = v.object({
  asked: v.number(),
  holds: v.number(),
  vacuous: v.optional(v.number(), 0),
});

/** The result of a kit's checks: the number of those with a take, that hold on all of theirs, and that could not have failed. */
export type CheckTally = Readonly<v.InferOutput<typeof checkTallySchema>>;

const kitRecordSchema = v.object({
  id: v.string(),
  kit: v.unknown(),
  /** Incremented with every write; a writer must have seen the last one. */
  version: v.fallback(v.number(), 0),
  /** The time of the last change, ms since 1970, and a short description. */
  changedAt: v.fallback(v.number(), 0),
  change: v.fallback(v.string(), ""),
  rows: v.fallback(kitSettingsSchema, { folded: [], order: [] }),
  checkTally: v.fallback(v.optional(checkTallySchema), undefined),
  /** The ids of the parts beside the kit, list by list, in order. */
  order: v.fallback(v.record(v.string(), v.array(v.string())), {}),
});

/** A valid kit record of the shelf. */
export interface KitRecord {
  readonly id: string;
  readonly kit: Kit;
  readonly version: number;
  readonly changedAt: number;
  readonly change: string;
  readonly rows: KitSettings;
  /** Undefined if its checks have not been judged since its last change. */
  readonly checkTally?: CheckTally | undefined;
  readonly order: Readonly<Partial<Record<PartList, readonly string[]>>>;
}

/** A part as stored: under its kit, its list and its id. */
export interface PartRecord {
  readonly kitId: string;
  readonly list: PartList;
  readonly id: string;
  readonly value: unknown;
}

/** Packs a part for the database: a long take's lanes would block the page while being copied. */
export function packPart(part: PartRecord): PartRecord {
  return { ...part, value: PARTS[part.list].pack(part.value) };
}

/**
 * Unpacks a part from the database in slices. Contents of another form are returned as they are, and fail to
 * parse later.
 */
export async function unpackPart(part: PartRecord, yieldToUi: () => Promise<void>): Promise<PartRecord> {
  if (!Object.hasOwn(PARTS, part.list)) return part;
  return { ...part, value: await PARTS[part.list].unpack(part.value, yieldToUi) };
}

/** The key of a part within its kit. */
export type PartKey = Pick<PartRecord, "list" | "id">;

/** A stored value that cannot be parsed: it can be saved as a file or deleted, and nothing of it is lost. */
export interface Broken {
  readonly id: string;
  /** Its intended content, by its name if it has one. */
  readonly name: string;
  readonly reasons: readonly string[];
  readonly raw: unknown;
}

function broken(id: string, word: string, raw: unknown, issues: readonly Issue[]): Broken {
  const named = v.safeParse(v.looseObject({ name: v.pipe(v.string(), v.nonEmpty()) }), raw);
  const reasons =
    issues.length > 0 ? issues.map(issue => formatIssue(issue)) : ["it is not what was kept here"];
  return { id, name: named.success ? named.output.name : `a ${word} without a name`, reasons, raw };
}

/** Parses a kit's record from storage. */
export function parseKitRecord(raw: unknown): KitRecord | Broken {
  const record = v.safeParse(kitRecordSchema, raw);
  const kit = parseKitShape(record.success ? record.output.kit : undefined);
  if (record.success && kit.ok) return { ...record.output, kit: kit.value } as KitRecord;
  const id = v.safeParse(v.looseObject({ id: v.string() }), raw);
  const found = record.success ? record.output.kit : raw;
  return broken(id.success ? id.output.id : "", "kit", found, kit.ok ? [] : kit.issues);
}

/** Returns whether a result is an unreadable value. */
export function isBroken<T extends object>(read: T | Broken): read is Broken {
  return "reasons" in read;
}

/**
 * Parses the parts beside a kit, in the record's order, and collects the unreadable ones. `known`: unchanged
 * items parsed before, by "list id".
 */
export function parseParts(
  record: KitRecord,
  parts: readonly PartRecord[],
  known: ReadonlyMap<string, unknown> = new Map(),
): { lists: Omit<KitDocument, "kit">; broken: readonly Broken[] } {
  const aside: Broken[] = [];
  const lists = PART_LISTS.map(list => {
    const order = record.order[list] ?? [];
    const placeOf = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length);
    const read = new Map<string, Part>();
    for (const id of order) {
      const item = known.get(`${list} ${id}`);
      if (item !== undefined) read.set(id, item as Part);
    }
    for (const part of parts) {
      if (part.list !== list) continue;
      const parsed = PARTS[list].parse(part.value);
      if (parsed.ok) read.set(part.id, parsed.value);
      else aside.push(broken(`${list} ${part.id}`, PARTS[list].word, part.value, parsed.issues));
    }
    const items = [...read].sort(([a], [b]) => placeOf(a) - placeOf(b)).map(([, item]) => item);
    return [list, items] as const;
  });
  return { lists: Object.fromEntries(lists) as unknown as Omit<KitDocument, "kit">, broken: aside };
}
