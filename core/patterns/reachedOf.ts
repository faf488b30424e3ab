import type { PatternProgram } from "../run/program";
import type { State } from "../run/state";
import { REACHED } from "./sequence/directions";

/** Steps the best choice of a sequence has had since it last was not forming; −1 for the other kinds. */
export function reachedOf(pattern: PatternProgram, state: State): number {
  return pattern.kind === "sequence" ? state.cells[pattern.base + REACHED]! : -1;
}
