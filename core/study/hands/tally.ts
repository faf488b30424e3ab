import type { Aim } from "./aims";
import { shareOverTakes, type TakeSum } from "./overTakes";
import { addAimed, shareOverRefits, type AimedCounts, type Refit } from "./refit";
import type { Share } from "./wilson";

/** The counts of one take while they are summed. */
type Sum = { -readonly [Field in keyof TakeSum]: TakeSum[Field] };

/** The counts of one kind over takes, by the index of the take: of all, and of those with known aims apart from others. */
export interface Tally {
  readonly all: Sum[];
  readonly others: Sum[];
  readonly aimed: AimedCounts;
}

/** Tallies by the index of a rule or check. */
export type Tallies = Map<number, Tally>;

/** Returns an empty tally. */
export const createTally = (): Tally => ({ all: [], others: [], aimed: new Map() });

/** Returns the tally of a rule or check, an empty one if there is none. */
export function tallyOf(tallies: Tallies, index: number): Tally {
  const own = tallies.get(index) ?? createTally();
  tallies.set(index, own);
  return own;
}

function addTo(sums: Sum[], take: number, isHit: boolean): void {
  while (sums.length <= take) sums.push({ hits: 0, n: 0 });
  const own = sums[take]!;
  own.n++;
  if (isHit) own.hits++;
}

/** A draw of an onset around a known aim, by a character with this spread, in ms. */
export interface AimedDraw {
  readonly aim: Aim;
  readonly onsetMs: number;
  readonly spreadMs: number;
}

/** Adds one press or verdict of a repetition of a take; `drawn` is undefined if its aim is not known, or if it is missing. */
export function addToTally(tally: Tally, take: number, isHit: boolean, drawn?: AimedDraw): void {
  addTo(tally.all, take, isHit);
  if (drawn) addAimed(tally.aimed, drawn.aim.like, take, drawn.onsetMs, drawn.spreadMs, isHit);
  else addTo(tally.others, take, isHit);
}

/**
 * Returns the share of a tally with its 95 % interval: over the draws of takes with the character fitted anew to each, if there
 * are presses with known aims and draws (see `shareOverRefits`), else over takes as recorded (see `shareOverTakes`).
 */
export function shareOfTally(
  { all, others, aimed }: Tally,
  refits: readonly Refit[] | undefined,
  plays: number,
  seed: number,
): Share {
  const plain = shareOverTakes(all, plays, seed);
  return refits && aimed.size > 0 ? { ...plain, ...shareOverRefits(refits, aimed, others) } : plain;
}
