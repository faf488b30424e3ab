import type { Program } from "../program/program";
import { OPEN, type State } from "../program/state";
import { openedTicks, promptClock, shownTicks } from "./promptState";

/** Returns the pattern that a prompt on show asks for: the drawn one, or the first in kit order; −1 for none. */
export function askedNow(program: Program, state: State | undefined, p: number): number {
  const { ask, draw, drawFrom } = program.prompts[p]!;
  if (draw < 0) return ask[0] ?? -1;
  return drawFrom[state?.drawn[p] ?? -1] ?? -1;
}

/**
 * Returns the part of a prompt's lead, or of its window once open, that has passed at the end of a frame: 0 to 1, on
 * the prompt's clock. The prompt must be on show.
 */
export function promptPassed(program: Program, state: State, p: number): number {
  const prompt = program.prompts[p]!;
  const isOpen = state.promptStage[p] === OPEN;
  const since = isOpen ? openedTicks(prompt, state, p) : shownTicks(prompt, state, p);
  const length = isOpen ? prompt.windowTicks : prompt.leadTicks;
  return Math.min(1, (promptClock(prompt, state) - since) / Math.max(1, length));
}
