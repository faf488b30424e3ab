import type { PathStep } from "../../formats/issue";
import { scaleLength } from "../../kit/applyAssist";
import { readAt, writeAt } from "../../kit/editAt";
import { LONGEST_WRITTEN } from "../../time/duration";
import { listLengths } from "../../kit/lengths";
import type { Kit } from "../../kit/schema";

/**
 * A number of a kit, or a group of numbers, that a sweep changes: lengths in frames or ms as written, plain
 * numbers as they are, a group by a factor in percent.
 */
export type Swept =
  | { readonly kind: "length"; readonly path: readonly PathStep[]; readonly unit: "f" | "ms" }
  | { readonly kind: "number"; readonly path: readonly PathStep[] }
  | { readonly kind: "group"; readonly group: SweptGroup };

/** Groups of lengths that are scaled together. */
export const SWEPT_GROUPS = ["buffers", "coyotes", "gaps", "windows"] as const;
export type SweptGroup = (typeof SWEPT_GROUPS)[number];

/** The last field of the lengths of each group. */
const FIELDS: Readonly<Record<SweptGroup, ReadonlySet<string>>> = {
  buffers: new Set(["buffer"]),
  coyotes: new Set(["coyote"]),
  gaps: new Set(["gap", "spread", "within"]),
  windows: new Set(["buffer", "coyote", "gap", "spread", "within", "window", "linger"]),
};

const fieldOf = (path: readonly PathStep[]) => String(path.findLast(step => typeof step === "string"));

/** Returns the lengths of a group in a kit, as written. */
export function listGroup(kit: Kit, group: SweptGroup): ReturnType<typeof listLengths> {
  return listLengths(kit).filter(({ path }) => FIELDS[group].has(fieldOf(path)));
}

/**
 * Returns the present value of a number in the sweep's unit: 100 for a group; undefined if it is not written.
 */
export function presentValue(kit: Kit, swept: Swept): number | undefined {
  if (swept.kind === "group") return 100;
  const written = readAt(kit, swept.path);
  if (typeof written === "number") return written;
  if (typeof written === "string") return parseFloat(written);
  return swept.kind === "length" ? 0 : undefined;
}

/**
 * Returns the kit with a number, or every length of a group, set to a value; undefined for a length below
 * zero or beyond the longest one that can be written.
 */
export function writeSwept(kit: Kit, swept: Swept, value: number): Kit | undefined {
  if (swept.kind === "number") return writeAt(kit, swept.path, value);
  if (value < 0) return undefined;
  if (swept.kind === "length" && value > LONGEST_WRITTEN) return undefined;
  if (swept.kind === "length") return writeAt(kit, swept.path, `${value}${swept.unit}`);
  return listGroup(kit, swept.group).reduce(
    (changed, { path, written }) => writeAt(changed, path, scaleLength(written, value)),
    kit,
  );
}

/**
 * Returns the moves a number affects, by index: its own, or those that answer its pattern; undefined if it
 * affects all.
 */
export function movesOf(kit: Kit, swept: Swept): ReadonlySet<number> | undefined {
  if (swept.kind === "group") return undefined;
  const [list, index] = swept.path;
  if (list === "moves") return new Set([Number(index)]);
  if (list !== "patterns") return undefined;
  const { id } = kit.patterns[Number(index)]!;
  const places = (kit.moves ?? []).flatMap((move, m) => (move.pattern === id ? [m] : []));
  return places.length > 0 ? new Set(places) : undefined;
}
