import {
  isId,
  outputGate,
  writeAt,
  type Check,
  type Kit,
  type Layout,
  type Take,
  renameInCheck,
} from "#core";
import { listStageRefs } from "#stage";
import { freshId } from "./freshId";
import { NAMING_FIELDS } from "./ruleEdits";

/** The lists of a kit whose ids appear in exported files. */
export type IdList = "controls" | "patterns" | "moves" | "gates" | "prompts";

/** Fields that contain ids of controls. */
export const CONTROL_FIELDS: ReadonlySet<string> = new Set([
  "control",
  "controls",
  "press",
  "release",
  "hold",
  "together",
  "cancel",
  "wrongOn",
  "captures",
  "up",
  "down",
  "left",
  "right",
]);

const FIELDS: Readonly<Record<IdList, ReadonlySet<string>>> = { ...NAMING_FIELDS, controls: CONTROL_FIELDS };
const STAGE_WORDS = { controls: "control", patterns: "pattern", gates: "gate", prompts: "prompt" } as const;
/** Fields whose texts are never ids, and those the core ignores. */
const PASSED_OVER: ReadonlySet<string> = new Set(["id", "name", "stage", "effect", "bindings"]);

function replaceIds(
  value: unknown,
  fields: ReadonlySet<string>,
  ids: ReadonlyMap<string, string>,
  field = "",
): unknown {
  if (typeof value === "string") return (fields.has(field) ? ids.get(value) : undefined) ?? value;
  if (Array.isArray(value)) return value.map(item => replaceIds(item, fields, ids, field));
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, item]) => [
      key,
      PASSED_OVER.has(key) ? item : replaceIds(item, fields, ids, key),
    ]),
  );
}

/** The parts of a document that contain ids. */
interface Named {
  readonly kit: Kit;
  readonly takes: readonly Take[];
  readonly layouts: readonly Layout[];
  readonly checks: readonly Check[];
  /** Other versions of the rules. */
  readonly variants: readonly { readonly kit: Kit }[];
}

function renameKey<V>(
  record: Readonly<Record<string, V>>,
  from: string,
  to: string,
): Readonly<Record<string, V>> {
  if (!Object.hasOwn(record, from)) return record;
  return Object.fromEntries(Object.entries(record).map(([key, value]) => [key === from ? to : key, value]));
}

/** The parts of a take that are named by ids of a list. */
const PARTS_OF_TAKE = {
  controls: ["lanes", "unmeant"],
  gates: ["gates"],
  moves: ["did"],
  patterns: [],
  prompts: [],
} as const satisfies Readonly<Record<IdList, readonly (keyof Take)[]>>;

function renameInTake(take: Take, list: IdList, from: string, to: string): Take {
  const renamed = PARTS_OF_TAKE[list].flatMap(part => {
    const own: Readonly<Record<string, unknown>> = take[part] ?? {};
    return Object.hasOwn(own, from) ? [[part, renameKey(own, from, to)] as const] : [];
  });
  return renamed.length === 0 ? take : { ...take, ...Object.fromEntries(renamed) };
}

/** An id of a list, and the one that replaces it. */
type Replacement = readonly [list: IdList, from: string, to: string];

/** Returns the replacements that another id needs: the output gate of a move is named by it. */
const replacementsOf = (list: IdList, from: string, to: string): readonly Replacement[] => [
  ...(list === "moves" ? [["gates", outputGate(from), outputGate(to)] as const] : []),
  [list, from, to],
];

/**
 * Returns another version of the rules with the id replaced, and an item of its own that has the new id given another. A version
 * without the item, or with a stick of that id, is left as it is.
 */
function renameInVersion(kit: Kit, list: IdList, from: string, to: string): Kit {
  const taken = new Set(((kit[list] ?? []) as readonly { readonly id: string }[]).map(({ id }) => id));
  const isStick = list === "controls" && kit.sticks?.some(({ id }) => id === to);
  if (!taken.has(from) || isStick) return kit;
  const rename = (version: Kit, id: string, other: string) =>
    replacementsOf(list, id, other).reduce((now, replacement) => renameInKit(now, ...replacement), version);
  return rename(taken.has(to) ? rename(kit, to, freshId(to, taken)) : kit, from, to);
}

/**
 * Returns a document with an id replaced wherever it is used: rules, stage, takes, layouts, checks and variants.
 * Nothing else changes, and traces stay the same. The new id must be valid and free.
 */
export function renameId<D extends Named>(document: D, list: IdList, from: string, to: string): D {
  const variants = document.variants.map(variant => {
    const kit = renameInVersion(variant.kit, list, from, to);
    return kit === variant.kit ? variant : { ...variant, kit };
  });
  const renamed = replacementsOf(list, from, to).reduce(
    (now, replacement) => renameOwn(now, ...replacement),
    document,
  );
  return { ...renamed, variants };
}

/**
 * Returns a kit with ids of a list replaced in all its rules, at once, so that an old id may be another's new one; output
 * gates follow their moves. The stage is left as it is.
 */
export function renameInRules(kit: Kit, list: IdList, ids: ReadonlyMap<string, string>): Kit {
  const outputs = new Map([...ids].map(([from, to]) => [outputGate(from), outputGate(to)]));
  const before = list === "moves" ? (replaceIds(kit, FIELDS.gates, outputs) as Kit) : kit;
  const replaced = replaceIds(before, FIELDS[list], ids) as Kit;
  const items = (replaced[list] ?? []) as readonly { readonly id: string }[];
  return { ...replaced, [list]: items.map(item => ({ ...item, id: ids.get(item.id) ?? item.id })) } as Kit;
}

/** Returns a kit with an id replaced in its rules and its stage. */
function renameInKit(kit: Kit, list: IdList, from: string, to: string): Kit {
  const own = renameInRules(kit, list, new Map([[from, to]]));
  const word = list === "moves" ? undefined : STAGE_WORDS[list];
  const refs = listStageRefs(kit).filter(ref => ref.what === word && ref.id === from);
  return refs.reduce((now, { path }) => writeAt(now, ["stage", ...path], to), own);
}

/** Returns a document with an id replaced in its own rules, takes, layouts and checks. */
function renameOwn<D extends Named>(document: D, list: IdList, from: string, to: string): D {
  const { kit, takes, layouts, checks } = document;
  return {
    ...document,
    kit: renameInKit(kit, list, from, to),
    takes: takes.map(take => renameInTake(take, list, from, to)),
    checks: checks.map(check => renameInCheck(check, list, from, to)),
    layouts:
      list === "controls"
        ? layouts.map(layout => ({ ...layout, bindings: renameKey(layout.bindings, from, to) }))
        : layouts,
  };
}

/** Returns why an id cannot be used; empty if it can. */
export function whyNotId(kit: Kit, list: IdList, from: string, to: string): string {
  if (!isId(to)) return "An id is at most 100 letters, digits and signs, without / ? # \\ or %.";
  const others: readonly { readonly id: string }[] =
    list === "controls" ? [...kit.controls, ...(kit.sticks ?? [])] : (kit[list] ?? []);
  return others.some(item => item.id === to && item.id !== from) ? `Another has the id ${to} already.` : "";
}
