import { TICKS } from "../time/clock";
import type { State } from "./state";

/**
 * Returns a time in ticks on one of the two clocks: the real one counts frames, the game's was `gameTicks`
 * then.
 */
export function momentOn(isReal: boolean, frame: number, gameTicks: number): number {
  return isReal ? frame * TICKS : gameTicks;
}

/** Returns the current time on one of the two clocks, in ticks. */
export function nowOn(isReal: boolean, state: State): number {
  return momentOn(isReal, state.frame, state.gameTicks);
}
