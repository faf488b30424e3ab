import type { PatternProgram } from "../run/program";
import type { State } from "../run/state";
import { REACHED } from "./sequence/directions";

/** Returns the steps made by the best choice of a sequence in its current attempt; −1 for other kinds. */
export function reachedOf(pattern: PatternProgram, state: State): number {
  return pattern.kind === "sequence" ? state.cells[pattern.base + REACHED]! : -1;
}
