import { BOUNDS } from "../formats/bounds";
import { fault, type Issue, type PathStep, type Result } from "../formats/issue";
import { parseDocument, type DocumentFormat } from "../formats/parseDocument";
import { compile } from "./compile";
import { kitSchema, type Kit } from "./schema";

/** The kit format and its newest version; older versions are upgraded here once there are any. */
export const KIT_FORMAT: DocumentFormat<Kit> = {
  format: "moss-tap/kit",
  version: 1,
  schema: kitSchema,
  forward: {},
};

/**
 * Returns the path, within a value, of the list with which all lists so far have more items than `room` has left; undefined if
 * none does. Takes the items from `room`.
 */
function findListBeyond(value: unknown, room: { left: number }): readonly PathStep[] | undefined {
  if (typeof value !== "object" || value === null) return undefined;
  if (Array.isArray(value)) room.left -= value.length;
  if (room.left < 0) return [];
  for (const key of Object.keys(value)) {
    const beyond = findListBeyond(value[key as keyof typeof value], room);
    if (beyond) return [Array.isArray(value) ? Number(key) : key, ...beyond];
  }
  return undefined;
}

/** Returns the fault of a kit whose lists hold too much in all; its stage has bounds of its own. */
function findExcess({ stage: _stage, ...rules }: Kit): Issue | undefined {
  const path = findListBeyond(rules, { left: BOUNDS.itemsInAll });
  return path && fault("many-in-all", path, { limit: BOUNDS.itemsInAll });
}

/**
 * Parses an unknown value as a kit by its shape alone. A kit being edited may have faults, such as a rule
 * that names something deleted, and is stored anyway.
 */
export function parseKitShape(input: unknown): Result<Kit> {
  const parsed = parseDocument(KIT_FORMAT, input);
  const excess = parsed.ok ? findExcess(parsed.value) : undefined;
  return excess ? { ok: false, issues: [excess] } : parsed;
}

/**
 * Returns the first fault in the shape of an edited kit, with its path there; undefined if there is none.
 * `before` must have been parsed: list items that are still the same objects in the same places are not parsed
 * again, so that a drag of one number in a large kit costs one rule.
 */
export function findEditFault(before: Kit, after: Kit): Issue | undefined {
  const changed: Record<string, unknown> = { ...after };
  const places = new Map<unknown, readonly number[]>();
  for (const [field, list] of Object.entries(after)) {
    const old: unknown = before[field as keyof Kit];
    if (!Array.isArray(list) || !Array.isArray(old) || list.length !== old.length) continue;
    const own = list.flatMap((item, i) => (item === old[i] ? [] : [i]));
    places.set(field, own);
    changed[field] = own.map(i => list[i] as unknown);
  }
  const shape = parseKitShape(changed);
  if (shape.ok) return findExcess(after);
  const [fault] = shape.issues;
  const [field, item, ...inner] = fault!.path;
  const place = typeof item === "number" ? places.get(field)?.[item] : undefined;
  return place === undefined ? fault : { ...fault!, path: [field!, place, ...inner] };
}

/**
 * Parses an unknown value as a kit, with everything the compiler checks: a parsed kit can be run. Returns
 * every fault; warnings come with the kit. Example:
 *
 *     const read = parseKit(JSON.parse(text));
 *     if (!read.ok) throw new Error(read.issues.map(formatIssue).join("\n"));
 *     const kit = read.value;
 */
export function parseKit(input: unknown): Result<Kit> {
  const parsed = parseKitShape(input);
  if (!parsed.ok) return parsed;
  const compiled = compile(parsed.value);
  return compiled.ok ? { ...parsed, warnings: compiled.warnings } : compiled;
}
