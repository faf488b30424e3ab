import type { PatternBase, Program, PromptProgram } from "../../program/program";
import { FAILURES, LAPSE_REASONS } from "../../trace/trace";

/**
 * Returns the controls whose press ends an attempt of a pattern for a reason, an index into LAPSE_REASONS; none for a
 * reason that no press of another control gives.
 */
export function controlsThatEnd(pattern: PatternBase, reason: number): readonly number[] {
  const why = LAPSE_REASONS[reason];
  if (why === "cancelled") return pattern.cancel;
  if (why !== "broken") return [];
  return pattern.watches.filter(
    control => !pattern.controls.includes(control) && !pattern.cancel.includes(control),
  );
}

/**
 * Returns the controls whose press fails a showing of a prompt for a reason, an index into FAILURES; `drawn`: the
 * pattern the showing asks for, −1 for all. A fire of a pattern that was not drawn fails it as well.
 */
export function controlsThatFail(prompt: PromptProgram, reason: number, drawn: number): readonly number[] {
  const why = FAILURES[reason];
  if (why === "wrong") return prompt.wrongControls;
  if (why !== "too-early") return [];
  return drawn < 0 ? prompt.earlyControls : (prompt.earlyControlsOf[prompt.drawFrom.indexOf(drawn)] ?? []);
}

/** The present showing of a prompt: the first frame of its window, or on which it was shown, and what it asks for. */
export interface Showing {
  shownAt: number;
  openAt: number;
  drawn: number;
}

/** Creates the showings of a program's prompts, none of which is shown yet. */
export function createShowings(program: Program): Showing[] {
  return program.prompts.map(() => ({ shownAt: -1, openAt: -1, drawn: -1 }));
}
