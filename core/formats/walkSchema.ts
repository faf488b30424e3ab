import { ownValue } from "./ownValue";
import type { PathStep } from "./issue";

/** The parts of a Valibot schema that are walked; Valibot's own types are too wide for a generic walk. */
export interface AnySchema {
  readonly type: string;
  readonly expects?: string;
  readonly entries?: Readonly<Record<string, AnySchema>>;
  readonly wrapped?: AnySchema;
  readonly item?: AnySchema;
  readonly items?: readonly AnySchema[];
  readonly value?: AnySchema;
  readonly options?: readonly AnySchema[];
  readonly literal?: unknown;
}

export function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/**
 * Returns the union form that a value most likely was meant to be: a list for a list, otherwise the one with most known
 * fields, then fewest unknown ones.
 */
export function likeliest(options: readonly AnySchema[], value: unknown): AnySchema | undefined {
  if (Array.isArray(value)) return options.find(({ item }) => item !== undefined);
  if (!isRecord(value)) return undefined;
  let best: AnySchema | undefined;
  let bestScore = 0;
  for (const option of options) {
    const entries = option.entries ?? {};
    const literal = Object.entries(entries).find(([, schema]) => schema.type === "literal");
    if (literal && value[literal[0]] !== literal[1].literal) continue;
    const keys = Object.keys(value);
    const known = keys.filter(key => Object.hasOwn(entries, key)).length;
    const first = Object.keys(entries)[0];
    const score = literal
      ? 1000
      : (first !== undefined && Object.hasOwn(value, first) ? 100 : 0) + known * 2 - keys.length;
    if (score > bestScore) {
      best = option;
      bestScore = score;
    }
  }
  return best;
}

/**
 * Walks a valid value with its schema and reports every position of the given leaf schemas. Union forms are
 * chosen by the fields a value has.
 */
export function findLeaves(
  schema: AnySchema,
  value: unknown,
  leaves: ReadonlySet<unknown>,
  onLeaf: (path: readonly PathStep[], value: unknown) => void,
  path: readonly PathStep[] = [],
): void {
  if (leaves.has(schema)) return onLeaf(path, value);
  if (schema.wrapped) return findLeaves(schema.wrapped, value, leaves, onLeaf, path);
  if (schema.options && schema.type !== "picklist") {
    const option = likeliest(schema.options, value);
    if (option) findLeaves(option, value, leaves, onLeaf, path);
  } else if (Array.isArray(value)) {
    if (schema.item) value.forEach((item, k) => findLeaves(schema.item!, item, leaves, onLeaf, [...path, k]));
  } else if (isRecord(value) && schema.entries)
    for (const [key, item] of Object.entries(value)) {
      const entry = ownValue(schema.entries, key);
      if (entry) findLeaves(entry, item, leaves, onLeaf, [...path, key]);
    }
}
