import { quantileSorted } from "simple-statistics";
import type { Take } from "../../input/takeSchema";
import { gapFrames } from "../../input/gapFrames";
import { readTake, type InputColumns } from "../../input/inputColumns";
import type { Kit } from "../../kit/schema";
import { LOSS_REASONS, PERFORMED_BY, type LossReason, type PerformedBy } from "../../trace/trace";
import type { Aims } from "../hands/aims";
import type { Character } from "../hands/character";
import { playHand } from "../hands/playHand";
import type { PrepareRun } from "../prepareRun";
import { movesOf, writeSwept, type Swept } from "./swept";
import { readOutcome, type Outcome } from "./readOutcome";

/** The parameters of a sweep. */
export interface SweepQuestion {
  readonly kit: Kit;
  readonly swept: Swept;
  /** Other numbers set at the same time: one row of a two-dimensional sweep. */
  readonly besides?: readonly { readonly swept: Swept; readonly value: number }[];
  /** The values to try, in the number's own unit. */
  readonly values: readonly number[];
  /** The character with which each take is repeated, and how often; absent means once as recorded. */
  readonly hands?: {
    readonly character: Character;
    readonly aims?: Aims;
    readonly seed: number;
    readonly count: number;
  };
}

/** The result of one value, over all runs. */
export interface SweepPoint {
  readonly value: number;
  /** The number of runs: takes × repetitions. 0 if the kit has faults with this value. */
  readonly runs: number;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  /** Lost requests by reason. */
  readonly lost: Readonly<Partial<Record<LossReason, number>>>;
  /** Lost presses (see Fate). */
  readonly lostPresses: number;
  /** Presses unused at the present value and used at this one. */
  readonly saved: number;
  /**
   * Events absent at the present value and not made of a press lost there, plus events of the present value
   * that are gone.
   */
  readonly unwanted: number;
  readonly gone: number;
  /** Results of checks that hold, of those judged. */
  readonly holds: number;
  readonly asked: number;
  /** The checks that were judged in some run, and those of them that failed in one. */
  readonly checks: number;
  readonly failing: number;
  /** The median delay from press to performance, in frames; undefined if nothing was performed. */
  readonly medianDelay: number | undefined;
}

interface Sums {
  runs: number;
  performed: Record<PerformedBy, number>;
  lost: Partial<Record<LossReason, number>>;
  lostPresses: number;
  saved: number;
  unwanted: number;
  gone: number;
  holds: number;
  asked: number;
  /** The indices of checks that were judged, and of those that failed. */
  readonly judged: Set<number>;
  readonly failed: Set<number>;
  delays: number[];
}

const createSums = (): Sums => ({
  runs: 0,
  performed: { direct: 0, buffer: 0, coyote: 0, both: 0 },
  lost: {},
  lostPresses: 0,
  saved: 0,
  unwanted: 0,
  gone: 0,
  holds: 0,
  asked: 0,
  judged: new Set(),
  failed: new Set(),
  delays: [],
});

function addOutcome(sums: Sums, now: Outcome, present: Outcome): void {
  sums.runs++;
  for (const by of PERFORMED_BY) sums.performed[by] += now.performed[by];
  for (const why of LOSS_REASONS) if (now.lost[why]) sums.lost[why] = (sums.lost[why] ?? 0) + now.lost[why];
  sums.lostPresses += now.lostPresses.size;
  for (const key of present.lostPresses) if (!now.lostPresses.has(key)) sums.saved++;
  for (const [key, event] of now.events) {
    if (present.events.has(key)) continue;
    if (!event.edges.some(edge => present.lostPresses.has(edge))) sums.unwanted++;
  }
  for (const key of present.events.keys()) if (!now.events.has(key)) sums.gone++;
  for (const delay of now.delays) sums.delays.push(delay);
}

function toPoint(value: number, { delays, judged, failed, ...sums }: Sums): SweepPoint {
  const sorted = Float64Array.from(delays).sort();
  const medianDelay = sorted.length === 0 ? undefined : quantileSorted(sorted as unknown as number[], 0.5);
  return { value, ...sums, checks: judged.size, failing: failed.size, medianDelay };
}

/** One take as played: repeated with a character, or as recorded. */
interface Played {
  readonly take: Take;
  readonly columns: InputColumns;
  /** See listDelays. */
  readonly gaps: readonly number[];
  readonly present: Outcome;
}

/**
 * Yields the point of each value of a number over takes: every take is run under the changed kit, with every
 * repetition. All values use the same repetitions. Performances, losses and delays are those of the moves the
 * number belongs to. A value that gives the kit faults yields a point without runs. Yields after every run.
 */
export function* sweepValues(
  { kit, swept, besides = [], values, hands }: SweepQuestion,
  takes: readonly Take[],
  prepare: PrepareRun,
): Generator<
  { readonly runs: number; readonly of: number; readonly point?: SweepPoint },
  readonly SweepPoint[]
> {
  const base = prepare(kit);
  if (!base) return [];
  const moves = movesOf(kit, swept);
  const count = hands?.count ?? 1;
  const of = takes.length * count * (values.length + 1);
  let runs = 0;
  const played: Played[] = [];
  for (const take of takes)
    for (let h = 0; h < count; h++) {
      const own = hands ? playHand(take, hands.character, hands.seed + h, hands.aims?.get(take.id)) : take;
      const columns = readTake(base.program, own);
      const gaps = gapFrames(own, base.program.rateHz);
      const present = readOutcome(base.program, base.run(columns), moves, gaps);
      played.push({ take: own, columns, gaps, present });
      yield { runs: ++runs, of };
    }
  const points: SweepPoint[] = [];
  for (const value of values) {
    const sums = createSums();
    const changed = [{ swept, value }, ...besides].reduce<Kit | undefined>(
      (now, other) => now && writeSwept(now, other.swept, other.value),
      kit,
    );
    const ready = changed && prepare(changed);
    for (const { take, columns, gaps, present } of played) {
      runs++;
      if (!ready) continue;
      const trace = ready.run(columns);
      addOutcome(sums, readOutcome(ready.program, trace, moves, gaps), present);
      for (const { check, ok } of ready.judge?.(trace, take.id) ?? []) {
        sums.asked++;
        sums.judged.add(check);
        if (ok) sums.holds++;
        else sums.failed.add(check);
      }
      yield { runs, of };
    }
    const point = toPoint(value, sums);
    points.push(point);
    yield { runs, of, point };
  }
  return points;
}

/** The limits of useful values. */
export interface SweepEdges {
  /** The smallest value at which no press is lost and no present event is gone. */
  readonly nothingLostFrom: number | undefined;
  /** The largest value, going up from the present one, before the first unwanted event. */
  readonly nothingUnwantedTo: number | undefined;
}

/** Finds both limits among the points of a sweep; undefined if there is none. */
export function findEdges(points: readonly SweepPoint[], present: number): SweepEdges {
  const sorted = points.filter(({ runs }) => runs > 0).sort((a, b) => a.value - b.value);
  const isClean = ({ lostPresses, gone }: SweepPoint) => lostPresses === 0 && gone === 0;
  const up = sorted.filter(({ value }) => value >= present);
  const firstUnwanted = up.findIndex(({ unwanted }) => unwanted > 0);
  const last = firstUnwanted < 0 ? up.at(-1) : up[firstUnwanted - 1];
  return { nothingLostFrom: sorted.find(isClean)?.value, nothingUnwantedTo: last?.value };
}
