import { readTake, type InputColumns } from "../../input/inputColumns";
import type { Take } from "../../input/takeSchema";
import {
  countPlay,
  fatesOf,
  isUsed,
  isUsedInTake,
  listPresses,
  type CountedPress,
  type ListedPresses,
} from "../hands/countPresses";
import { playHandWithPositions, type PlayedTake } from "../hands/playHand";
import type { HandsQuestion } from "../hands/studyHands";
import { isSameDecided, listDecided } from "../../trace/decided";
import { isEqualBetween } from "../equalBetween";
import type { PreparedKit, PrepareRun } from "../prepareRun";
import { isAscending, prepareValues, runValues, type Sharing, type ValuesQuestion } from "../runValues";

/** The parameters of a goal: the plays to meet it, and the values to try. */
export interface GoalQuestion extends HandsQuestion, ValuesQuestion {
  /** A play meets the goal if it keeps at least this share of its meant presses, 0 to 1. */
  readonly pressShare: number;
  /** Whether none of the checks in `never` names lost events (see namesLosses); then they are decided by what runs decide. */
  readonly isNeverDecided?: boolean;
}

/** The result of one value. */
export interface GoalCell {
  readonly value: number;
  /** The plays of takes that have a meant press, and those of them that meet the goal. 0 if the kit has faults. */
  readonly plays: number;
  readonly meeting: number;
  /** Meant presses of all plays, and those kept. */
  readonly meant: number;
  readonly kept: number;
  /** Unwanted events of all plays. */
  readonly unwanted: number;
  /** The meant press that is kept least often, hopeless ones excepted; undefined if all others always are. */
  readonly hardest: HardestPress | undefined;
  /** The hopeless meant presses, the same for all cells of a study: used neither in their takes nor in a play at any value. */
  readonly hopeless: number;
}

/** A meant press of a take, with the plays of that take in which it is kept. */
export interface HardestPress {
  readonly take: string;
  readonly control: string;
  readonly frame: number;
  readonly kept: number;
  readonly plays: number;
}

/** One repetition of a take, common to all values. */
interface Played {
  readonly seed: number;
  readonly played: PlayedTake;
  readonly columns: InputColumns;
}

/** A take with its meant presses, and the function that makes its repetitions. */
interface Course {
  readonly take: Take;
  readonly listed: ListedPresses;
  readonly playOf: (repetition: number) => Played;
}

/** Shares are compared with a little room, so that 99 % of 100 presses is 99. */
const ROUNDING = 1e-9;

interface Sums {
  plays: number;
  meeting: number;
  meant: number;
  kept: number;
  unwanted: number;
}

/** The results of one play at one value: the meant presses that were kept, by their place, and the unwanted events. */
interface Outcome {
  readonly isKept: readonly boolean[];
  readonly unwanted: number;
  /** See listDecided; undefined where results are not shared. */
  readonly decided: readonly number[] | undefined;
}

/** The sums of one value over plays, and how often each meant press of each take was kept. */
interface Tally extends Sums {
  readonly counted: readonly CountedPress[][];
}

/** Adds the results of a play of a take, by the take's place. */
function addPlay(tally: Tally, place: number, { isKept, unwanted }: Outcome, pressShare: number): void {
  const presses = tally.counted[place]!;
  const kept = isKept.filter(Boolean).length;
  isKept.forEach((is, k) => is && presses[k]!.kept++);
  tally.plays++;
  tally.meant += presses.length;
  tally.kept += kept;
  tally.unwanted += unwanted;
  if (kept >= pressShare * presses.length - ROUNDING) tally.meeting++;
}

/** Returns, for each meant press of each take, whether no value explains its loss: nothing used it, in the take or in a play. */
function listHopeless(
  courses: readonly Course[],
  tallies: readonly Tally[],
): readonly (readonly boolean[])[] {
  return courses.map(({ listed }, place) =>
    listed.meant.map(
      (one, k) => !isUsedInTake(one) && tallies.every(({ counted }) => counted[place]![k]!.kept === 0),
    ),
  );
}

/** Returns the press kept in the smallest share of its plays, hopeless ones excepted; of several the first. */
function findHardest(
  counted: readonly (readonly CountedPress[])[],
  plays: readonly number[],
  hopeless: readonly (readonly boolean[])[],
): HardestPress | undefined {
  let hardest: { readonly one: CountedPress; readonly share: number; readonly of: number } | undefined;
  counted.forEach((presses, place) => {
    const of = plays[place]!;
    presses.forEach((one, k) => {
      if (of === 0 || hopeless[place]![k] || one.kept / of >= (hardest?.share ?? 1)) return;
      hardest = { one, share: one.kept / of, of };
    });
  });
  if (!hardest) return undefined;
  const { take, control, frame, kept } = hardest.one;
  return { take: take.id, control, frame, kept, plays: hardest.of };
}

/** Runs that decide the same keep the same presses and have the same unwanted events. */
const SHARING: Sharing<Outcome> = {
  isSame: (lower, upper) => isSameDecided(lower.decided!, upper.decided!),
  derive: upper => upper,
};

/** Runs one play at one value. */
function runPlay(
  ready: PreparedKit,
  { take, listed }: Course,
  { seed, played, columns }: Played,
  never: readonly number[],
  isShared: boolean,
): Outcome {
  const trace = ready.run(columns);
  const isKept: boolean[] = [];
  const run = { take, columns, fates: fatesOf(ready.program, trace) };
  const slips = countPlay(ready, listed, played, run, seed, (_one, fate) => isKept.push(isUsed(fate)));
  const verdicts = never.length > 0 ? (ready.judge?.(trace, take.id) ?? []) : [];
  const broken = verdicts.filter(({ check, ok }) => !ok && never.includes(check)).length;
  return { isKept, unwanted: slips + broken, decided: isShared ? listDecided(trace) : undefined };
}

/**
 * Yields, for each value of a number, the plays in which a character keeps at least a share of the meant presses. All values
 * have the same plays and the same meant presses, which are those under the present rules. A value that gives the kit faults
 * yields a cell without plays. Yields after every run, with the number of plays of values that are counted, of those in all,
 * and a function that returns the cells of the plays so far. The plays of takes alternate. Source: docs/studies.md, "Goal".
 */
export function* studyGoal(
  question: GoalQuestion,
  takes: readonly Take[],
  prepare: PrepareRun,
): Generator<
  { readonly runs: number; readonly of: number; readonly cells: () => readonly GoalCell[] },
  readonly GoalCell[]
> {
  const { kit, character, aims, seed, count, control, never = [], pressShare, swept, values } = question;
  const base = prepare(kit);
  if (!base) return [];
  const courses = takes.flatMap((take): Course[] => {
    const listed = listPresses(base, take, control);
    if (listed.meant.length === 0) return [];
    const playOf = (h: number): Played => {
      const played = playHandWithPositions(take, character, seed + h, aims?.get(take.id));
      return { seed: seed + h, played, columns: readTake(base.program, played.take) };
    };
    return [{ take, listed, playOf }];
  });
  const tallies = values.map((): Tally => ({
    plays: 0,
    meeting: 0,
    meant: 0,
    kept: 0,
    unwanted: 0,
    counted: courses.map(({ listed }) => listed.meant.map(one => ({ ...one, kept: 0 }))),
  }));
  const played = courses.map(() => 0);
  const cells = () => {
    const hopeless = listHopeless(courses, tallies);
    const hopelessCount = hopeless.flat().filter(Boolean).length;
    return tallies.map(({ counted, ...sums }, k) => ({
      value: values[k]!,
      ...sums,
      hardest: findHardest(counted, played, hopeless),
      hopeless: hopelessCount,
    }));
  };
  const ready = yield* prepareValues(question, prepare, { runs: 0, of: 0, cells });
  const sound = [...ready.keys()].filter(k => ready[k]);
  const isJudgedAlike = never.length === 0 || question.isNeverDecided === true;
  const isShared = isEqualBetween(swept) && isJudgedAlike && isAscending(values);
  const sharing = isShared ? SHARING : undefined;
  const of = courses.length * count * sound.length;
  let runs = 0;
  for (let h = 0; h < count && sound.length > 0; h++)
    for (const [place, course] of courses.entries()) {
      const play = course.playOf(h);
      const running = runValues(sound, k => runPlay(ready[k]!, course, play, never, isShared), sharing);
      let step = running.next();
      for (; !step.done; step = running.next()) yield { runs, of, cells };
      played[place]!++;
      step.value.forEach((outcome, k) => addPlay(tallies[sound[k]!]!, place, outcome, pressShare));
      runs += sound.length;
      yield { runs, of, cells };
    }
  return cells();
}

/** A cell of a field of two numbers: its row's value, if there is a second number. */
export interface GoalPlace {
  readonly row: number | undefined;
  readonly cell: GoalCell;
}

/** Returns whether at least a share of the plays meets the goal. */
export function qualifies({ plays, meeting }: GoalCell, playShare: number): boolean {
  return plays > 0 && meeting >= playShare * plays - ROUNDING;
}

/**
 * Returns the choice among cells that qualify: the fewest unwanted events a play, then the smallest sum of the numbers, then
 * the first. `sizeOf` returns the sum of a cell's numbers in frames. Undefined if none qualifies.
 */
export function chooseGoal(
  places: readonly GoalPlace[],
  playShare: number,
  sizeOf: (place: GoalPlace) => number,
): GoalPlace | undefined {
  const unwantedOf = ({ cell }: GoalPlace) => cell.unwanted / Math.max(1, cell.plays);
  return places
    .filter(({ cell }) => qualifies(cell, playShare))
    .sort((a, b) => unwantedOf(a) - unwantedOf(b) || sizeOf(a) - sizeOf(b))[0];
}
