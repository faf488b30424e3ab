import type { PathStep } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { PatternKind, PatternOf } from "../kit/schema";
import type { PatternBase } from "../program/program";

/** The part of a compiled pattern that its own kind compiles; the rest is common to all kinds. */
export type OwnPart<G extends PatternBase> = Omit<
  G,
  Exclude<keyof PatternBase, "controls" | "cancel" | "cellCount" | "edgeRoom">
> & {
  /** Controls whose changes wake the pattern, in addition to its own and its cancels. */
  readonly alsoWatches?: readonly number[];
  /** The row length of one choice, for a kind that keeps choices in the state. */
  readonly choiceStride?: number;
};

/**
 * Compiles a pattern of one kind: resolves names, converts lengths to ticks, adds faults to `names.issues`
 * under `path`.
 */
export type CompileKind<K extends PatternKind, G extends PatternBase> = (
  pattern: PatternOf<K>,
  names: Names,
  path: readonly PathStep[],
) => OwnPart<G>;

/** Returns the indices of a list of controls. Unknown and duplicate ones are omitted and added as faults. */
export function compileControls(
  ids: readonly string[] | undefined,
  names: Names,
  path: readonly PathStep[],
): number[] {
  const places = (ids ?? []).map((id, k) => names.control(id, [...path, k])).filter(place => place >= 0);
  return [...new Set(places)];
}
