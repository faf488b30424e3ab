import { gapFrames } from "../../input/gapFrames";
import { readTake, type InputColumns } from "../../input/inputColumns";
import type { Take } from "../../input/takeSchema";
import type { Program } from "../../program/program";
import { isSameDecided, listDecided } from "../../trace/decided";
import type { Aims } from "../hands/aims";
import type { Character } from "../hands/character";
import { playHand } from "../hands/playHand";
import { isBuffer, isEqualBetween } from "../equalBetween";
import type { JudgedCheck, PreparedKit, PrepareRun } from "../prepareRun";
import { isAscending, prepareValues, runValues, type Sharing, type ValuesQuestion } from "../runValues";
import { readOutcome, shortenWaits, type Outcome } from "./readOutcome";
import { addOutcome, createSums, toPoint, type SweepPoint } from "./sweepPoint";
import { countedOf } from "./swept";

/** The parameters of a sweep: the values to try, each in the number's own unit, and the plays to try them on. */
export interface SweepQuestion extends ValuesQuestion {
  /** The character with which each take is repeated, and how often; absent means once as recorded. */
  readonly hands?: {
    readonly character: Character;
    readonly aims?: Aims;
    readonly seed: number;
    readonly count: number;
  };
  /**
   * Whether there are no checks, or none that names lost events (see namesLosses): then they are decided by what runs decide,
   * and runs can be shared.
   */
  readonly areChecksDecided?: boolean;
}

/** One play: a take repeated with a character, or as recorded. */
interface Play {
  readonly takeId: string;
  readonly columns: InputColumns;
  /** See listDelays. */
  readonly gaps: readonly number[];
}

/** The results of one play at one value, and what it takes to derive those at lower values. */
interface SweptRun {
  readonly program: Program;
  readonly outcome: Outcome;
  readonly verdicts: readonly JudgedCheck[];
  /** See listDecided and Trace. */
  readonly decided: readonly number[];
  readonly waits: readonly number[];
}

/** Returns whether requests of a move can wait at all, which decides whether newer ones replace older ones. */
const canWait = ({ moves }: Program, m: number) => moves[m]!.deferTicks + moves[m]!.bufferTicks > 0;

/** Returns whether requests of two runs were lost for the same reasons. */
function isSameLost({ unperformed: lower }: Outcome, { unperformed: upper }: Outcome): boolean {
  return lower.length === upper.length && lower.every(({ reason }, k) => reason === upper[k]!.reason);
}

/** Returns how runs between two values follow from theirs; undefined where they do not. */
function sharingOf(
  { swept, values, areChecksDecided = false }: SweepQuestion,
  ready: readonly (PreparedKit | undefined)[],
): Sharing<SweptRun> | undefined {
  if (!areChecksDecided || !isEqualBetween(swept) || !isAscending(values)) return undefined;
  const isSame = (lower: SweptRun, upper: SweptRun) => isSameDecided(lower.decided, upper.decided);
  // A coyote moves no end of a request, and what keeps one from being performed grows less with it.
  if (!isBuffer(swept))
    return {
      isSame: (lower, upper) => isSame(lower, upper) && isSameLost(lower.outcome, upper.outcome),
      derive: upper => upper,
    };
  return {
    isSame,
    derive(upper, place) {
      const { program } = ready[place]!;
      const isAlike = program.moves.every((_, m) => canWait(program, m) === canWait(upper.program, m));
      return isAlike ? { ...upper, outcome: shortenWaits(upper.outcome, upper.waits, program) } : undefined;
    },
  };
}

/** A step of a sweep: the runs that are counted, of those in all, and the points of the plays so far. */
interface SweepStep {
  readonly runs: number;
  readonly of: number;
  readonly points: () => readonly SweepPoint[];
}

/**
 * Yields the points of each value of a number over takes: every take is run under the changed kit, with every
 * repetition. All values use the same repetitions. Performances, losses, delays and answers are those of the rules that the
 * number, and those set beside it, belong to. A value that gives the kit faults yields a point without runs. Yields after every
 * run; the takes of a repetition follow each other.
 */
export function* sweepValues(
  question: SweepQuestion,
  takes: readonly Take[],
  prepare: PrepareRun,
): Generator<SweepStep, readonly SweepPoint[]> {
  const { kit, swept, besides = [], values, hands } = question;
  const base = prepare(kit);
  if (!base) return [];
  const counted = countedOf(kit, [swept, ...besides.map(beside => beside.swept)]);
  const count = hands?.count ?? 1;
  const of = takes.length * count * (values.length + 1);
  const sums = values.map(createSums);
  let runs = 0;
  const listPoints = () => sums.map((own, k) => toPoint(values[k]!, takes.length, own));
  // A point without runs is that of a value with faults, and not of one that was not tried yet.
  const points = () => (runs === 0 ? [] : listPoints());
  const ready = yield* prepareValues(question, prepare, { runs: 0, of, points });
  const sound = [...ready.keys()].filter(k => ready[k]);
  const sharing = sharingOf(question, ready);
  const runAt = ({ takeId, columns, gaps }: Play, { program, run, judge }: PreparedKit): SweptRun => {
    const waits: number[] = [];
    const trace = sharing ? run(columns, waits) : run(columns);
    return {
      program,
      outcome: readOutcome(program, trace, counted, gaps),
      verdicts: judge?.(trace, takeId) ?? [],
      decided: sharing ? listDecided(trace) : [],
      waits,
    };
  };
  for (let h = 0; h < count; h++)
    for (const take of takes) {
      const own = hands ? playHand(take, hands.character, hands.seed + h, hands.aims?.get(take.id)) : take;
      const columns = readTake(base.program, own);
      const play: Play = { takeId: own.id, columns, gaps: gapFrames(own, base.program.rateHz) };
      const present = readOutcome(base.program, base.run(columns), counted, play.gaps);
      const running = runValues(sound, k => runAt(play, ready[k]!), sharing);
      let step = running.next();
      for (let done = 1; !step.done; done++, step = running.next())
        yield { runs: runs + Math.min(done, sound.length), of, points };
      step.value.forEach(({ outcome, verdicts }, k) =>
        addOutcome(sums[sound[k]!]!, outcome, present, verdicts),
      );
      runs += values.length + 1;
      yield { runs, of, points };
    }
  return listPoints();
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
