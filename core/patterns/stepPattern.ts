import { isAnyPressed } from "../program/sight";
import type { PatternBase, Program } from "../program/program";
import { ASLEEP, AWAKE, FIRED, FORMING, IDLE, LAPSED, type State } from "../program/state";
import type { Trace } from "../trace/trace";
import { lapse, type PatternStepper } from "./fire";
import { recordOf } from "./recordOf";

/** Returns the stepper of a pattern's kind; the registry guarantees that kind and program match. */
function stepperOf(pattern: PatternBase): PatternStepper<PatternBase> {
  return recordOf(pattern.kind).stepper;
}

/** Returns the steps made in the current attempt, for a lapse; −1 for kinds without steps. */
export function reachedOf(pattern: PatternBase, state: State): number {
  return stepperOf(pattern).reached?.(pattern, state) ?? -1;
}

/** Resets pattern `i` to idle, as before frame 0. */
export function resetPattern(program: Program, state: State, i: number): void {
  const pattern = program.patterns[i]!;
  state.cells.fill(0, pattern.base, pattern.base + pattern.cellCount);
  stepperOf(pattern).reset?.(pattern, state);
  state.phase[i] = IDLE;
}

/**
 * Ends the attempt because one of its controls was hidden while down. A cancel on the same frame takes
 * precedence.
 */
function startOver(
  program: Program,
  pattern: PatternBase,
  state: State,
  trace: Trace,
  i: number,
  before: number,
): void {
  state.startsOver[i] = 0;
  const reached = reachedOf(pattern, state);
  const restart = stepperOf(pattern).restart;
  if (restart) restart(program, pattern, state, i);
  else state.cells.fill(0, pattern.base, pattern.base + pattern.cellCount);
  if (before !== FORMING) return;
  const isCancelled = isAnyPressed(program, state, i, pattern.cancel);
  if (isCancelled) stepperOf(pattern).cancel?.(pattern, state);
  lapse(state, trace, i, isCancelled ? "cancelled" : "hidden", reached);
}

/** Steps one pattern and clears state it no longer needs; `before` is the previous phase. */
export function stepPattern(program: Program, state: State, trace: Trace, i: number, before: number): void {
  const pattern = program.patterns[i]!;
  state.phase[i] = IDLE;
  if (state.startsOver[i] === 1) startOver(program, pattern, state, trace, i, before);
  state.awake[i] = ASLEEP;
  stepperOf(pattern).step(program, pattern, state, trace, i);
  // A fire and a lapse are over on the next frame.
  if (state.phase[i] === FIRED || state.phase[i] === LAPSED) state.awake[i] = AWAKE;
}
