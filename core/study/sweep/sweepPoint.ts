import { LOSS_REASONS, PERFORMED_BY, type LossReason, type PerformedBy } from "../../trace/trace";
import type { JudgedCheck } from "../prepareRun";
import type { Outcome } from "./readOutcome";

/** The result of one value, over all runs. */
export interface SweepPoint {
  readonly value: number;
  /** The number of runs: takes × repetitions. 0 if the kit has faults with this value. */
  readonly runs: number;
  /** How often all takes were run; less than 1 while the first repetition is not complete. */
  readonly repetitions: number;
  readonly performed: Readonly<Record<PerformedBy, number>>;
  /** Lost requests by reason. */
  readonly lost: Readonly<Partial<Record<LossReason, number>>>;
  /** Lost presses (see Fate). */
  readonly lostPresses: number;
  /** Showings of prompts that were answered, and those that ended without an answer. */
  readonly answered: number;
  readonly unanswered: number;
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
  /** The checks that were judged in some run, and those of them that failed in one, by index. */
  readonly judged: readonly number[];
  readonly failed: readonly number[];
  /** By a delay in frames: how many performances came so long after their press. */
  readonly delays: ReadonlyMap<number, number>;
}

/** The results of one value while they are summed. */
interface Sums {
  runs: number;
  readonly performed: Record<PerformedBy, number>;
  readonly lost: Partial<Record<LossReason, number>>;
  lostPresses: number;
  answered: number;
  unanswered: number;
  saved: number;
  unwanted: number;
  gone: number;
  holds: number;
  asked: number;
  readonly judged: Set<number>;
  readonly failed: Set<number>;
  readonly delays: Map<number, number>;
}

export const createSums = (): Sums => ({
  runs: 0,
  performed: { direct: 0, buffer: 0, coyote: 0, both: 0 },
  lost: {},
  lostPresses: 0,
  answered: 0,
  unanswered: 0,
  saved: 0,
  unwanted: 0,
  gone: 0,
  holds: 0,
  asked: 0,
  judged: new Set(),
  failed: new Set(),
  delays: new Map(),
});

function addLost(sums: Sums, lost: SweepPoint["lost"]): void {
  for (const why of LOSS_REASONS) if (lost[why]) sums.lost[why] = (sums.lost[why] ?? 0) + lost[why];
}

function addDelays(sums: Sums, frames: number, count: number): void {
  sums.delays.set(frames, (sums.delays.get(frames) ?? 0) + count);
}

/** Adds the results of one run; `present` are those of the same play at the present value. */
export function addOutcome(
  sums: Sums,
  now: Outcome,
  present: Outcome,
  verdicts: readonly JudgedCheck[],
): void {
  sums.runs++;
  for (const by of PERFORMED_BY) sums.performed[by] += now.performed[by];
  addLost(sums, now.lost);
  sums.lostPresses += now.lostPresses.size;
  sums.answered += now.answered;
  sums.unanswered += now.unanswered;
  for (const key of present.lostPresses) if (!now.lostPresses.has(key)) sums.saved++;
  for (const [key, event] of now.events) {
    if (present.events.has(key)) continue;
    if (!event.edges.some(edge => present.lostPresses.has(edge))) sums.unwanted++;
  }
  for (const key of present.events.keys()) if (!now.events.has(key)) sums.gone++;
  for (const delay of now.delays) addDelays(sums, delay, 1);
  for (const { check, ok } of verdicts) {
    sums.asked++;
    sums.judged.add(check);
    if (ok) sums.holds++;
    else sums.failed.add(check);
  }
}

/** Returns the point of a value with its sums, which may change afterwards. `takes`: the number of takes swept over. */
export function toPoint(value: number, takes: number, { judged, failed, ...sums }: Sums): SweepPoint {
  return {
    ...sums,
    value,
    repetitions: sums.runs / Math.max(1, takes),
    performed: { ...sums.performed },
    lost: { ...sums.lost },
    judged: [...judged],
    failed: [...failed],
    delays: new Map(sums.delays),
  };
}

/** Returns the points of sweeps of one number over different repetitions or with different values as one list, by value. */
export function mergePoints(points: readonly SweepPoint[]): readonly SweepPoint[] {
  const byValue = new Map<number, Sums & { repetitions: number }>();
  for (const { value, ...point } of points) {
    const sums = byValue.get(value) ?? { ...createSums(), repetitions: 0 };
    byValue.set(value, sums);
    for (const field of COUNTED) sums[field] += point[field];
    for (const by of PERFORMED_BY) sums.performed[by] += point.performed[by];
    addLost(sums, point.lost);
    for (const check of point.judged) sums.judged.add(check);
    for (const check of point.failed) sums.failed.add(check);
    for (const [frames, count] of point.delays) addDelays(sums, frames, count);
  }
  return [...byValue]
    .sort(([a], [b]) => a - b)
    .map(([value, { repetitions, ...sums }]) => ({ ...toPoint(value, 1, sums), repetitions }));
}

const COUNTED = [
  "runs",
  "repetitions",
  "lostPresses",
  "answered",
  "unanswered",
  "saved",
  "unwanted",
  "gone",
  "holds",
  "asked",
] as const;

/** Returns the median delay from press to performance, in frames; undefined if nothing was performed. */
export function medianDelayOf({ delays }: Pick<SweepPoint, "delays">): number | undefined {
  const sorted = [...delays].sort(([a], [b]) => a - b);
  const all = sorted.reduce((sum, [, count]) => sum + count, 0);
  if (all === 0) return undefined;
  /** Returns the delay at a place among all, the shortest first. */
  const at = (place: number) => {
    let passed = 0;
    return sorted.find(([, count]) => (passed += count) > place)![0];
  };
  return (at((all - 1) >> 1) + at(all >> 1)) / 2;
}
