import { firstNoteAfter, notes, type Trace } from "#core";
import type { RunnerProgram } from "./runnerProgram";

/** The path of a body through one leap. Frames of its take, lengths in tiles. */
export interface Arc {
  /** The move that leapt, by its index in the program. */
  readonly move: number;
  /** The frame of its performance, and of the landing; the last frame read while it is in the air. */
  readonly from: number;
  readonly to: number;
  readonly hasLanded: boolean;
  readonly heightTiles: number;
  readonly farTiles: number;
  readonly airFrames: number;
  /** The frame of the highest point. */
  readonly topFrame: number;
}

/** A body this far from its position one frame ago fell out of the level and was returned to its start. */
const RETURN_TILES = 2;

/**
 * Returns the leaps performed up to a frame and from another on, latest first, at most so many: indices of
 * the trace's notes.
 */
export function findLeaps(
  trace: Trace,
  stage: RunnerProgram,
  upTo: number,
  most: number,
  since = 0,
): { readonly frame: number; readonly move: number }[] {
  const found: { frame: number; move: number }[] = [];
  for (let i = firstNoteAfter(trace, upTo) - 1; i >= 0 && found.length < most; i--) {
    const frame = trace.frame[i]!;
    if (frame < since) break;
    const move = trace.subject[i]!;
    if (trace.kind[i] !== notes.performed.code) continue;
    const isLeap = stage.acts[move]?.some(({ does }) => does === "leap" || does === "output");
    if (isLeap) found.push({ frame, move });
  }
  return found;
}

/**
 * Measures the arc of a leap from the track (x, y for each frame, in tiles) up to a frame. It ends when the
 * body stands for two frames; the frames in the air run from the leap to the landing. A body that falls out
 * of the level has not landed.
 */
export function measureArc(
  track: ArrayLike<number>,
  leap: { readonly frame: number; readonly move: number },
  upTo: number,
): Arc {
  const from = leap.frame;
  const last = Math.min(upTo, Math.floor(track.length / 2) - 1);
  const start = Math.max(0, from - 1);
  const floor = track[start * 2 + 1] ?? 0;
  let top = floor;
  let topFrame = start;
  let to = start;
  let hasLanded = false;
  for (let f = from; f <= last && !hasLanded; f++) {
    if (Math.abs(track[f * 2]! - track[Math.max(0, f - 1) * 2]!) > RETURN_TILES) break;
    const y = track[f * 2 + 1]!;
    if (y > top) {
      top = y;
      topFrame = f;
    }
    hasLanded = f > from + 2 && y === track[(f - 1) * 2 + 1] && y === track[(f - 2) * 2 + 1];
    to = hasLanded ? f - 2 : f;
  }
  const farTiles = Math.abs((track[to * 2] ?? 0) - (track[start * 2] ?? 0));
  const airFrames = Math.max(0, to - start);
  return { move: leap.move, from, to, hasLanded, heightTiles: top - floor, farTiles, airFrames, topFrame };
}
