import type { Fate, TakeOutcomes } from "#core";

/** The frames of a take that its overview shows: presses, performances, and for each lost press its loss. */
export interface OutcomeFrames {
  readonly presses: readonly number[];
  readonly performed: readonly number[];
  readonly lost: readonly number[];
}

/** Returns the frames of a take's presses, of the moves performed and of the losses of its lost presses. */
export function overviewFrames({ presses, requests }: TakeOutcomes): OutcomeFrames {
  return {
    presses: presses.map(({ frame }) => frame),
    performed: requests.flatMap(({ end, frame }) => (end === "performed" ? [frame] : [])),
    lost: listLost(presses).map(({ losses }) => losses.at(-1)!.frame),
  };
}

/** Returns the presses that were lost. */
export function listLost(presses: readonly Fate[]): Fate[] {
  return presses.filter(({ outcome }) => outcome === "lost");
}

/** Returns the presses that came to nothing: rules heard them and lapsed, and nothing else became of them. */
export function listSilent(presses: readonly Fate[]): Fate[] {
  return presses.filter(({ outcome }) => outcome === "lapsed");
}

/** Returns the cells of a strip, of so many, in which frames of a take lie; each once, in order. */
export function cellsOf(frames: readonly number[], ofFrames: number, cells: number): number[] {
  const found = new Set(
    frames.map(frame => Math.min(cells - 1, Math.floor((frame / Math.max(1, ofFrames)) * cells))),
  );
  return [...found].sort((a, b) => a - b);
}
