import { parseFrames, TICKS, type State } from "#core";
import type { RunnerDocument } from "./schema";

/** A compiled moving beam. Lengths in tiles, y upwards; it holds from above only. */
export interface MovingBeam {
  /** Its left end and its top where it begins. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  /** The other end of its way, from the first. */
  readonly across: number;
  readonly up: number;
  /** The frames of the game clock from the first end to the other and back. */
  readonly frames: number;
  /** The speed that a jump from it takes along, on its way to the other end, in tiles per second; opposite on its way back. */
  readonly thrown: { readonly x: number; readonly y: number };
}

/** Compiles the moving beams of a level. `rateHz`: the kit's rate. */
export function compileBeams(beams: RunnerDocument["beams"], rateHz: number): readonly MovingBeam[] {
  return (beams ?? []).map(({ every, throws, ...beam }) => {
    const frames = Math.max(1, parseFrames(every, rateHz, "atLeast") ?? 1);
    const waysPerSecond = throws ? (2 * rateHz) / frames : 0;
    return { ...beam, frames, thrown: { x: beam.across * waysPerSecond, y: beam.up * waysPerSecond } };
  });
}

/**
 * Returns where a beam is after a number of frames of the game clock: it goes to the other end and back at a constant speed.
 */
export function placeBeam(beam: MovingBeam, clockFrames: number): { readonly x: number; readonly y: number } {
  const turn = (clockFrames % beam.frames) / beam.frames;
  const share = 1 - Math.abs(2 * turn - 1);
  return { x: beam.x + beam.across * share, y: beam.y + beam.up * share };
}

/**
 * Returns the speed that a jump takes along from a beam, in tiles per second: across, and up if it rises.
 */
export function thrownFrom(
  beam: MovingBeam,
  clockFrames: number,
): { readonly x: number; readonly y: number } {
  const isGoing = clockFrames % beam.frames < beam.frames / 2;
  const { x, y } = beam.thrown;
  return isGoing ? { x, y: Math.max(0, y) } : { x: 0 - x, y: Math.max(0, -y) };
}

/** Returns whether a body at a place across is above a beam that begins at `left`. */
export function isOverBeam({ width }: MovingBeam, left: number, x: number, halfWidth: number): boolean {
  return x + halfWidth > left && x - halfWidth < left + width;
}

/** Returns the frames of the game clock before the last frame of a state: beams have moved for so long on it. */
export function clockOf({ gameTicks }: Pick<State, "gameTicks">): number {
  return gameTicks / TICKS;
}
