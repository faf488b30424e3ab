import { quantileSorted } from "simple-statistics";

/** Onsets beyond this are counted at the ends, in ms. */
export const ONSET_ENDS_MS = 250;
/** The width of a bar, in ms. */
export const ONSET_BIN_MS = 25;

/** The distribution of onsets of a group of takes. Times in ms after the moment that judged a press, negative before it. */
export interface Onsets {
  readonly n: number;
  /** Undefined without a press, as the quartiles. */
  readonly medianMs: number | undefined;
  readonly quartilesMs: readonly [number, number] | undefined;
  /** Presses in bars from −ONSET_ENDS_MS on; those beyond are in the first and the last. */
  readonly bars: readonly number[];
}

/** Returns the distribution of onsets. */
export function summarizeOnsets(onsetsMs: readonly number[]): Onsets {
  const bars = Array<number>((2 * ONSET_ENDS_MS) / ONSET_BIN_MS).fill(0);
  for (const ms of onsetsMs) {
    const bar = Math.floor((ms + ONSET_ENDS_MS) / ONSET_BIN_MS);
    bars[Math.max(0, Math.min(bars.length - 1, bar))]!++;
  }
  const sorted = [...onsetsMs].sort((a, b) => a - b);
  if (sorted.length === 0) return { n: 0, medianMs: undefined, quartilesMs: undefined, bars };
  const at = (share: number) => quantileSorted(sorted, share);
  return { n: sorted.length, medianMs: at(0.5), quartilesMs: [at(0.25), at(0.75)], bars };
}

const inWords = (ms: number) => {
  const rounded = Math.round(ms);
  return rounded === 0 ? "0 ms" : `${Math.abs(rounded)} ms ${rounded < 0 ? "early" : "late"}`;
};

/** The fewest presses of which a half is named. */
const FEW = 4;

/** Formats a distribution: "median 12 ms late, half of them from 5 ms early to 30 ms late, n = 34"; of few presses the median. */
export function formatOnsets({ n, medianMs, quartilesMs }: Onsets): string {
  if (medianMs === undefined || quartilesMs === undefined) return "no press that a gate or target judged";
  const [low, high] = quartilesMs.map(inWords);
  const half = low === high ? `half of them ${low}` : `half of them from ${low} to ${high}`;
  return [`median ${inWords(medianMs)}`, ...(n < FEW ? [] : [half]), `n = ${n}`].join(", ");
}
