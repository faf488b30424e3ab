import { readTake, type InputColumns } from "../../input/inputColumns";
import type { Take } from "../../input/takeSchema";
import type { Kit } from "../../kit/schema";
import {
  countPlay,
  fatesOf,
  isUsed,
  listPresses,
  type CountedPress,
  type ListedPresses,
} from "../hands/countPresses";
import { playHandWithPositions, type PlayedTake } from "../hands/playHand";
import type { HandsQuestion } from "../hands/studyHands";
import type { PrepareRun } from "../prepareRun";
import { writeSwept, type Swept } from "../sweep/swept";

/** The parameters of a goal: the plays to meet it, and the values to try. */
export interface GoalQuestion extends HandsQuestion {
  /** A play meets the goal if it keeps at least this share of its meant presses, 0 to 1. */
  readonly pressShare: number;
  readonly swept: Swept;
  /** Other numbers set at the same time: one row of a field of two numbers. */
  readonly besides?: readonly { readonly swept: Swept; readonly value: number }[];
  readonly values: readonly number[];
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
  /** The meant press that is kept least often; undefined if all always are. */
  readonly hardest: HardestPress | undefined;
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

/** A take with its meant presses, and its repetitions. */
interface Course {
  readonly take: Take;
  readonly listed: ListedPresses;
  readonly plays: readonly Played[];
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

/** Returns the press kept least often; of several the first. */
function findHardest(counted: readonly (readonly CountedPress[])[], plays: number): HardestPress | undefined {
  let hardest: CountedPress | undefined;
  for (const one of counted.flat()) if (one.kept < (hardest?.kept ?? plays)) hardest = one;
  if (!hardest) return undefined;
  const { take, control, frame, kept } = hardest;
  return { take: take.id, control, frame, kept, plays };
}

/**
 * Yields, for each value of a number, the plays in which a character keeps at least a share of the meant presses. All values
 * have the same plays and the same meant presses, which are those under the present rules. A value that gives the kit faults
 * yields a cell without plays. Yields after every run, with each cell when it is complete. Source: docs/studies.md, "Goal".
 */
export function* studyGoal(
  question: GoalQuestion,
  takes: readonly Take[],
  prepare: PrepareRun,
): Generator<{ readonly runs: number; readonly of: number; readonly cell?: GoalCell }, readonly GoalCell[]> {
  const { kit, character, aims, seed, count, control, never = [] } = question;
  const { pressShare, swept, besides = [], values } = question;
  const base = prepare(kit);
  if (!base) return [];
  const courses = takes.flatMap((take): Course[] => {
    const listed = listPresses(base, take, control);
    if (listed.meant.length === 0) return [];
    const plays = Array.from({ length: count }, (_, h): Played => {
      const played = playHandWithPositions(take, character, seed + h, aims?.get(take.id));
      return { seed: seed + h, played, columns: readTake(base.program, played.take) };
    });
    return [{ take, listed, plays }];
  });
  const of = courses.length * count * values.length;
  const cells: GoalCell[] = [];
  let runs = 0;
  for (const value of values) {
    const sums: Sums = { plays: 0, meeting: 0, meant: 0, kept: 0, unwanted: 0 };
    const changed = [{ swept, value }, ...besides].reduce<Kit | undefined>(
      (now, other) => now && writeSwept(now, other.swept, other.value),
      kit,
    );
    const ready = changed && prepare(changed);
    const counted: CountedPress[][] = [];
    for (const { take, listed, plays } of courses) {
      const meant = listed.meant.map(one => ({ ...one, kept: 0 }));
      counted.push(meant);
      for (const { seed: own, played, columns } of plays) {
        runs++;
        if (!ready) continue;
        const trace = ready.run(columns);
        let kept = 0;
        const run = { take, columns, fates: fatesOf(ready.program, trace) };
        sums.unwanted += countPlay(ready, { ...listed, meant }, played, run, own, (_one, fate) => {
          if (isUsed(fate)) kept++;
        });
        for (const { check, ok } of ready.judge?.(trace, take.id) ?? [])
          if (!ok && never.includes(check)) sums.unwanted++;
        sums.plays++;
        sums.meant += meant.length;
        sums.kept += kept;
        if (kept >= pressShare * meant.length - ROUNDING) sums.meeting++;
        yield { runs, of };
      }
    }
    const cell = { value, ...sums, hardest: findHardest(counted, count) };
    cells.push(cell);
    yield { runs, of, cell };
  }
  return cells;
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
