import { TICKS } from "../time/clock";
import { ASLEEP, AWAKE, TIMED, type State } from "./state";

/** Wake times are this much early, so that rounding never makes one late; ticks. Waking early changes nothing. */
const EARLY_TICKS = 0.5;

/** Returns the time at which to wake for something that happens at or after `ticks`. */
export const wakeTime = (ticks: number): number => ticks - EARLY_TICKS;

/**
 * Puts pattern `i` to sleep until a time on its clock, in ticks, or until a control it watches changes; Infinity for the
 * latter alone. It must be the first time at which anything about the pattern can change without input.
 */
export function sleepUntil(state: State, i: number, ticks: number): void {
  state.awake[i] = ticks === Infinity ? ASLEEP : TIMED;
  state.wakeTicks[i] = wakeTime(ticks);
}

/** Keeps pattern `i` awake for the next frame. */
export function stayAwake(state: State, i: number): void {
  state.awake[i] = AWAKE;
}

/** Returns whether the wake time of gates at rest is reached on the present frame. */
export function areGatesDue(state: State): boolean {
  return state.gameTicks >= state.gatesWakeGame || state.frame * TICKS >= state.gatesWakeReal;
}

/** Sets the wake time of a state that has just become quiet. */
export function setAlarm(state: State): void {
  state.wakeGame = Math.min(state.patternsWakeGame, state.gatesWakeGame);
  state.wakeReal = Math.min(state.patternsWakeReal, state.gatesWakeReal);
}

/** Lowers the wake time of a quiet state to a time on one of the two clocks, in ticks. */
export function wakeAt(state: State, isReal: boolean, ticks: number): void {
  if (isReal) state.wakeReal = Math.min(state.wakeReal, wakeTime(ticks));
  else state.wakeGame = Math.min(state.wakeGame, wakeTime(ticks));
}

/** Returns whether a quiet state must be stepped on the present frame. */
export function isDue(state: State): boolean {
  return state.gameTicks >= state.wakeGame || state.frame * TICKS >= state.wakeReal;
}

/** Returns whether a quiet state need not be stepped on the next frame, if no input changes on it. */
export function restsNext({ gameTicks, speedPercent, frame, wakeGame, wakeReal }: State): boolean {
  return gameTicks + speedPercent < wakeGame && (frame + 1) * TICKS < wakeReal;
}

/** Returns how many of the next frames end before the wake time of a quiet state, at the present speed. */
export function framesToWake({ gameTicks, speedPercent, frame, wakeGame, wakeReal }: State): number {
  const byGame = speedPercent > 0 ? Math.ceil((wakeGame - gameTicks) / speedPercent) - 1 : Infinity;
  return Math.min(byGame, Math.ceil(wakeReal / TICKS - frame) - 1);
}
