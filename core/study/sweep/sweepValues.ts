import { quantileSorted } from "simple-statistics";
import type { Take } from "../../input/takeSchema";
import { readTake, type InputColumns } from "../../input/inputColumns";
import type { Kit } from "../../kit/schema";
import { LOSS_REASONS, PERFORMED_BY, type LossReason, type PerformedBy } from "../../trace/trace";
import type { Character } from "../hands/character";
import { playHand } from "../hands/playHand";
import type { PrepareRun } from "../prepareRun";
import { movesOf, writeSwept, type Swept } from "./swept";
import { readOutcome, type Outcome } from "./readOutcome";

/** What a sweep is asked. */
export interface SweepQuestion {
  readonly kit: Kit;
  readonly swept: Swept;
  /** Other numbers, set besides: one row of a field of two. */
  readonly besides?: readonly { readonly swept: Swept; readonly value: number }[];
  /** What the number is set to, in its own unit. */
  readonly values: readonly number[];
  /** Each take is played so many times by hands of a character; left out, once as it was recorded. */
  readonly hands?: { readonly character: Character; readonly seed: number; readonly count: number };
}

/** What one value of the number comes to, over all runs. */
export interface SweepPoint {
  readonly value: number;
  /** How many runs were made: takes, times hands. 0 where the kit has faults with this value. */
  readonly runs: number;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  /** Lost requests by reason. */
  readonly lost: Readonly<Partial<Record<LossReason, number>>>;
  /** Lost presses (see Fate). */
  readonly lostPresses: number;
  /** Presses that come to nothing at the present value, and to something at this one. */
  readonly saved: number;
  /** Events the present value does not have and that are not made of a press it loses; and those it has that are gone. */
  readonly unwanted: number;
  readonly gone: number;
  /** Results of checks that hold, of those asked. */
  readonly holds: number;
  readonly asked: number;
  /** The middle of all delays from press to performance, frames; undefined where nothing was performed. */
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

function toPoint(value: number, { delays, ...sums }: Sums): SweepPoint {
  const sorted = Float64Array.from(delays).sort();
  const medianDelay = sorted.length === 0 ? undefined : quantileSorted(sorted as unknown as number[], 0.5);
  return { value, ...sums, medianDelay };
}

/** One take as it is played: by hands, or as recorded. */
interface Played {
  readonly take: Take;
  readonly columns: InputColumns;
  readonly present: Outcome;
}

/**
 * What each value of a number comes to over takes: value by value as they are asked for, each of them as a run of every
 * take, by every hand, under the changed kit. The same hands play at
 * every value. Performances, losses and delays are those of the moves the number is about. A value with which the kit has faults gives a point without runs. Yields after every run.
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
      const own = hands ? playHand(take, hands.character, hands.seed + h) : take;
      const columns = readTake(base.program, own);
      played.push({ take: own, columns, present: readOutcome(base.program, base.run(columns), moves) });
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
    for (const { take, columns, present } of played) {
      runs++;
      if (!ready) continue;
      const trace = ready.run(columns);
      addOutcome(sums, readOutcome(ready.program, trace, moves), present);
      for (const { ok } of ready.judge?.(trace, take.id) ?? []) {
        sums.asked++;
        if (ok) sums.holds++;
      }
      yield { runs, of };
    }
    const point = toPoint(value, sums);
    points.push(point);
    yield { runs, of, point };
  }
  return points;
}

/** Where a number may be put. */
export interface SweepEdges {
  /** The smallest value at which no press is lost and nothing of the present is gone. */
  readonly nothingLostFrom: number | undefined;
  /** The largest value that can be reached, going up from the present one, without anything unwanted coming. */
  readonly nothingUnwantedTo: number | undefined;
}

/** Reads the two edges off the points of a sweep; undefined where there is none among them. */
export function findEdges(points: readonly SweepPoint[], present: number): SweepEdges {
  const sorted = points.filter(({ runs }) => runs > 0).sort((a, b) => a.value - b.value);
  const isClean = ({ lostPresses, gone }: SweepPoint) => lostPresses === 0 && gone === 0;
  const up = sorted.filter(({ value }) => value >= present);
  const firstUnwanted = up.findIndex(({ unwanted }) => unwanted > 0);
  const last = firstUnwanted < 0 ? up.at(-1) : up[firstUnwanted - 1];
  return { nothingLostFrom: sorted.find(isClean)?.value, nothingUnwantedTo: last?.value };
}
