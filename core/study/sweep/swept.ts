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

/** The rules whose requests and showings a sweep counts, by index; undefined for all. */
export interface Counted {
  readonly moves: ReadonlySet<number> | undefined;
  readonly prompts: ReadonlySet<number> | undefined;
}

const ALL: Counted = { moves: undefined, prompts: undefined };

/** Returns the rules that one number affects. */
function countedOfOne(kit: Kit, swept: Swept): Counted {
  if (swept.kind === "group") return ALL;
  const [list, index] = swept.path;
  if (list === "moves") return { moves: new Set([Number(index)]), prompts: new Set() };
  if (list === "prompts") return { moves: undefined, prompts: new Set([Number(index)]) };
  if (list !== "patterns") return ALL;
  const { id } = kit.patterns[Number(index)]!;
  const moves = (kit.moves ?? []).flatMap((move, m) => (move.pattern === id ? [m] : []));
  const prompts = (kit.prompts ?? []).flatMap((prompt, p) => (prompt.ask.includes(id) ? [p] : []));
  return moves.length + prompts.length > 0 ? { moves: new Set(moves), prompts: new Set(prompts) } : ALL;
}

function unite(one: ReadonlySet<number> | undefined, two: ReadonlySet<number> | undefined) {
  return one && two ? new Set([...one, ...two]) : undefined;
}

/**
 * Returns the rules that the numbers of a sweep, one or several, affect: their own, or those that answer their patterns; all
 * where none does, and for a group.
 */
export function countedOf(kit: Kit, numbers: readonly [Swept, ...Swept[]]): Counted {
  return numbers
    .map(swept => countedOfOne(kit, swept))
    .reduce((one, two) => ({ moves: unite(one.moves, two.moves), prompts: unite(one.prompts, two.prompts) }));
}
