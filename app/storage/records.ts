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

/** The rules of a kit as they once were, kept under a name to compare with. */
export interface Variant {
  readonly id: string;
  readonly name: string;
  readonly kit: Kit;
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
 * What is kept beside a kit, list by list, each with how one item of it is read, and how it lies in the database. Another
 * sort of thing to keep is one line here: storing, following, undoing and putting back go by this table.
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

/** A kit with all that is kept beside it: what is open, saved, undone and put back as one. */
export type KitDocument = { readonly kit: Kit } & { readonly [L in PartList]: readonly ItemOf<L>[] };

/** The lists of a document without anything on them. */
export const NO_PARTS: Omit<KitDocument, "kit"> = { takes: [], variants: [], layouts: [], checks: [] };

/** Which rows of the tape are shown: all, those on which anything stirs, or those that tell what one rule does. */
const ROWS_SHOWN = ["all", "stirring", "rule"] as const;
export type RowsShown = (typeof ROWS_SHOWN)[number];

/** An arc of the stage that was kept to be compared: where it was leapt and by which numbers, its measures, and its way as x, y for each frame, tiles. */
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

const rowOrderSchema = v.object({
  folded: v.array(v.string()),
  order: v.array(v.string()),
  /** Which are shown while a rule is being shaped ("rule" where nothing is kept), and elsewhere ("stirring"). */
  inShape: v.exactOptional(v.picklist(ROWS_SHOWN)),
  elsewhere: v.exactOptional(v.picklist(ROWS_SHOWN)),
  /** What scripted hands do, line by line, with the seed and the unevenness of their chance. */
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
  /** Versions that are proved beside the present one: a variant by its id, or the present rules at another rate. */
  beside: v.exactOptional(
    v.array(
      v.union([
        v.object({ variant: v.string() }),
        v.object({ assist: v.string() }),
        v.object({ rate: v.number() }),
      ]),
    ),
  ),
  /** How it stood by its checks when it was last open: how many results there were, and how many of them held. */
  proof: v.exactOptional(v.object({ asked: v.number(), holds: v.number() })),
  /** What the timing sheet tells besides: since which variant, by its id, and at which rates. */
  sheet: v.exactOptional(
    v.object({ since: v.exactOptional(v.string()), rates: v.exactOptional(v.array(v.number())) }),
  ),
  /** How recordings from elsewhere were mapped last, the newest first. */
  mappings: v.exactOptional(v.array(mappingSchema)),
  arcs: v.exactOptional(v.array(keptArcSchema)),
  /** Views whose first step was done once: it is not told any more. */
  done: v.exactOptional(v.array(v.string())),
  /** The number that was given to a recording last, so that no other take ever gets its name. */
  takeNumber: v.exactOptional(v.pipe(v.number(), v.integer(), v.minValue(0))),
  /** Findings that are wanted as they are, by their keys: they are told no more. */
  wanted: v.exactOptional(v.array(v.string())),
});

/** How a kit is looked at: groups of rows folded, keys of rows in their order, findings that are wanted. */
export type RowOrder = Readonly<v.InferOutput<typeof rowOrderSchema>>;

/** So many mappings are remembered with a kit. */
const MAPPINGS_KEPT = 12;

/** Remembers mappings with a kit, these first; each stands there once. */
export function rememberMappings(rows: RowOrder, mappings: readonly Mapping[]): RowOrder {
  const told = new Set(mappings.map(mapping => JSON.stringify(mapping)));
  const others = (rows.mappings ?? []).filter(other => !told.has(JSON.stringify(other)));
  const all = [...mappings, ...others].slice(0, MAPPINGS_KEPT);
  return { ...rows, mappings: all as NonNullable<RowOrder["mappings"]> };
}

export const PLAIN_ROWS: RowOrder = { folded: [], order: [] };

const kitRecordSchema = v.object({
  id: v.string(),
  kit: v.unknown(),
  /** Rises by one with every write: who writes must have seen the last one. */
  version: v.fallback(v.number(), 0),
  /** When it was last changed, ms since 1970, and what changed, in a few words. */
  changedAt: v.fallback(v.number(), 0),
  change: v.fallback(v.string(), ""),
  rows: v.fallback(rowOrderSchema, { folded: [], order: [] }),
  /** The ids of what is kept beside the kit, list by list, in order. */
  order: v.fallback(v.record(v.string(), v.array(v.string())), {}),
});

/** A kit as the shelf keeps it, found sound. */
export interface KitRecord {
  readonly id: string;
  readonly kit: Kit;
  readonly version: number;
  readonly changedAt: number;
  readonly change: string;
  readonly rows: RowOrder;
  readonly order: Readonly<Partial<Record<PartList, readonly string[]>>>;
}

/** A take, variant or layout as it is kept: under its kit, its list and its id. */
export interface PartRecord {
  readonly kitId: string;
  readonly list: PartList;
  readonly id: string;
  readonly value: unknown;
}

/** A part as it lies in the database: a take's lanes packed, since a long one would keep the page for as long as it is copied. */
export function packPart(part: PartRecord): PartRecord {
  return { ...part, value: PARTS[part.list].pack(part.value) };
}

/**
 * A part out of the database as it was put there, a piece at a time between rests. What lies there in another form is left
 * as it is, and found out when it is parsed.
 */
export async function unpackPart(part: PartRecord, rest: () => Promise<void>): Promise<PartRecord> {
  if (!Object.hasOwn(PARTS, part.list)) return part;
  return { ...part, value: await PARTS[part.list].unpack(part.value, rest) };
}

/** What names a part within its kit. */
export type PartKey = Pick<PartRecord, "list" | "id">;

/** Something kept that does not read: nothing of it is lost, it can be saved as a file or let go. */
export interface Broken {
  readonly id: string;
  /** What it was meant to be, by its name as far as it has one. */
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

/** Reads a kit's record as it comes out of storage. */
export function parseKitRecord(raw: unknown): KitRecord | Broken {
  const record = v.safeParse(kitRecordSchema, raw);
  const kit = parseKitShape(record.success ? record.output.kit : undefined);
  if (record.success && kit.ok) return { ...record.output, kit: kit.value } as KitRecord;
  const id = v.safeParse(v.looseObject({ id: v.string() }), raw);
  const found = record.success ? record.output.kit : raw;
  return broken(id.success ? id.output.id : "", "kit", found, kit.ok ? [] : kit.issues);
}

/** Is this what could not be read? */
export function isBroken<T extends object>(read: T | Broken): read is Broken {
  return "reasons" in read;
}

/**
 * Reads what is kept beside a kit, in the record's order; what does not read is set aside. `known`: items that were read
 * before and have not changed, by "list id".
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
