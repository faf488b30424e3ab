import { TICKS } from "../time/clock";
import type { State } from "./state";

/** A moment in ticks of one of the two clocks: the real one counts frames, the game's was `gameTicks` then. */
export function momentOn(isReal: boolean, frame: number, gameTicks: number): number {
  return isReal ? frame * TICKS : gameTicks;
}

/** The present moment on one of the two clocks, in ticks. */
export function nowOn(isReal: boolean, state: State): number {
  return momentOn(isReal, state.frame, state.gameTicks);
}
