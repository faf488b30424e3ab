import { notes, type Fate, type Trace } from "#core";

/** What came of a take's presses: the frames of its presses, of the moves performed, and of each press lost, where it was lost. */
export interface Outcomes {
  readonly presses: readonly number[];
  readonly performed: readonly number[];
  readonly lost: readonly number[];
}

/**
 * What came of the presses of a take: the moves of its trace, and the lost among its fates. Counts, overview and list are
 * all read off this, so that they cannot differ. A press of which anything came is not lost.
 */
export function findOutcomes(trace: Trace, fates: readonly Fate[]): Outcomes {
  const performed: number[] = [];
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === notes.PERFORMED) performed.push(trace.frame[i]!);
  const lost = listLost(fates).map(fate => fate.losses.at(-1)!.frame);
  return { presses: fates.map(fate => fate.frame), performed, lost };
}

/** The presses that were lost. */
export function listLost(fates: readonly Fate[]): Fate[] {
  return fates.filter(fate => fate.outcome === "lost");
}

/** The cells of a strip, of so many, in which frames of a take lie; each once, in order. */
export function cellsOf(frames: readonly number[], ofFrames: number, cells: number): number[] {
  const found = new Set(
    frames.map(frame => Math.min(cells - 1, Math.floor((frame / Math.max(1, ofFrames)) * cells))),
  );
  return [...found].sort((a, b) => a - b);
}
