import type { Fate, TakeOutcomes } from "#core";

/** The frames of a take that its overview shows: presses, performances, and the loss of each lost press. */
export interface OutcomeFrames {
  readonly presses: readonly number[];
  readonly performed: readonly number[];
  readonly lost: readonly number[];
}

/** Returns the frames of a take's presses, its performances and the losses of its lost presses. */
export function overviewFrames({ presses, requests }: TakeOutcomes): OutcomeFrames {
  return {
    presses: presses.map(({ frame }) => frame),
    performed: requests.flatMap(({ end, frame }) => (end === "performed" ? [frame] : [])),
    lost: listLost(presses).map(({ losses }) => losses.at(-1)!.frame),
  };
}

/** Returns the lost presses. */
export function listLost(presses: readonly Fate[]): Fate[] {
  return presses.filter(({ outcome }) => outcome === "lost");
}

/** Returns the presses without a result: rules saw them and lapsed. */
export function listSilent(presses: readonly Fate[]): Fate[] {
  return presses.filter(({ outcome }) => outcome === "lapsed");
}

/** Returns the cells of a strip that contain frames of a take, each once, in order. */
export function cellsOf(frames: readonly number[], ofFrames: number, cells: number): number[] {
  const found = new Set(
    frames.map(frame => Math.min(cells - 1, Math.floor((frame / Math.max(1, ofFrames)) * cells))),
  );
  return [...found].sort((a, b) => a - b);
}
