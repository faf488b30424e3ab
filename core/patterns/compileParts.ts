import type { PathStep } from "../formats/issue";
import type { Names } from "../kit/compileNames";
import type { PatternKind, PatternOf } from "../kit/schema";
import type { PatternBase } from "../run/program";

/** The part of a compiled pattern its own kind fills in; the rest is the same for all. */
export type OwnPart<G extends PatternBase> = Omit<
  G,
  Exclude<keyof PatternBase, "controls" | "cancel" | "cellCount" | "edgeRoom">
> & {
  /** Controls it must be woken for besides its own and its cancels. */
  readonly alsoWatches?: readonly number[];
};

/** Compiles one kind: names resolved, lengths in ticks, faults noted in `names.issues` under `path`. */
export type CompileKind<K extends PatternKind, G extends PatternBase> = (
  pattern: PatternOf<K>,
  names: Names,
  path: readonly PathStep[],
) => OwnPart<G>;

/** Places of a list of controls; the unknown ones are noted and left out, as is one named twice. */
export function compileControls(
  ids: readonly string[] | undefined,
  names: Names,
  path: readonly PathStep[],
): number[] {
  const places = (ids ?? []).map((id, k) => names.control(id, [...path, k])).filter(place => place >= 0);
  return [...new Set(places)];
}
