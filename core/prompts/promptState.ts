import { momentOn, nowOn } from "../program/moments";
import type { Program, PromptProgram } from "../program/program";
import { HIDDEN, OPEN, type State } from "../program/state";
import { FAILED, FAILURES, note, PROMPT, put, type Trace } from "../trace/trace";

export type PromptFailure = (typeof FAILURES)[number];

/** Notes an outcome of prompt `p`; `outcome` and `detail` as in the note (see promptNote). */
export function notePrompt(state: State, trace: Trace, p: number, outcome: number, detail = -1): void {
  note(trace, state.frame, PROMPT, p);
  put(trace, outcome);
  put(trace, detail);
}

/**
 * Ends a showing: hides the prompt, unhides its controls from the next frame on, and informs the prompts and
 * gates that depend on it.
 */
export function endShowing(program: Program, state: State, p: number, isSuccess: boolean): void {
  if (state.promptStage[p] === OPEN && program.prompts[p]!.captures.length > 0) state.isHiddenStale = true;
  state.promptStage[p] = HIDDEN;
  state.outcomeFrame[p] = state.frame;
  state.promptSucceeded[p] = isSuccess ? 1 : 0;
}

/** Fails a prompt that is showing. */
export function failPrompt(
  program: Program,
  state: State,
  trace: Trace,
  p: number,
  why: PromptFailure,
): void {
  endShowing(program, state, p, false);
  notePrompt(state, trace, p, FAILED, FAILURES.indexOf(why));
}

/** Returns the current time on the prompt's clock, in ticks. */
export function promptClock(prompt: PromptProgram, state: State): number {
  return nowOn(prompt.isReal, state);
}

/** Returns the time at which the prompt was shown, and at which its window opened, on its clock. */
export function shownTicks(prompt: PromptProgram, state: State, p: number): number {
  return momentOn(prompt.isReal, state.shownFrame[p]!, state.shownTicks[p]!);
}

export function openedTicks(prompt: PromptProgram, state: State, p: number): number {
  return momentOn(prompt.isReal, state.openFrame[p]!, state.openTicks[p]!);
}
