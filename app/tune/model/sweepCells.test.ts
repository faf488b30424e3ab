import { expect, test } from "vitest";
import type { SweepPoint } from "#core";
import { EMPTY_POINT } from "../../tests/emptyPoint";
import { areShowingsNamed, sweepCellOf } from "./sweepCells";
import { keepWholeRows } from "./sweepLines";

const EMPTY: SweepPoint = { ...EMPTY_POINT, runs: 2 };
const REQUESTED: SweepPoint = { ...EMPTY, performed: { direct: 1, buffer: 0, coyote: 0, both: 0 } };

test("a field names unanswered showings where its numbers change them, or where it counts prompts alone", () => {
  const never = { ...EMPTY, unanswered: 2 };
  const once = { ...EMPTY, answered: 1, unanswered: 1 };
  expect(areShowingsNamed([EMPTY, EMPTY])).toBe(false);
  expect(areShowingsNamed([never, never])).toBe(true);
  expect(areShowingsNamed([{ ...never, ...REQUESTED, unanswered: 2 }, { ...never }])).toBe(false);
  expect(areShowingsNamed([{ ...REQUESTED, unanswered: 2 }, once])).toBe(true);
  // More plays of a cell than of another are no difference, and neither is a cell that could not be run.
  expect(
    areShowingsNamed([
      { ...REQUESTED, answered: 1, unanswered: 1 },
      { ...once, answered: 2, unanswered: 2 },
    ]),
  ).toBe(false);
  expect(
    areShowingsNamed([
      { ...REQUESTED, unanswered: 2 },
      { ...EMPTY, runs: 0 },
    ]),
  ).toBe(false);
});

test("a cell is full only where nothing that it counts was lost, unanswered or unwanted", () => {
  expect(sweepCellOf(EMPTY, false)).toEqual({
    text: "●",
    isClean: true,
    words: "0 lost, 0 unwanted or gone",
  });
  const faulty = { ...EMPTY, lostPresses: 3, answered: 1, unanswered: 2, unwanted: 1, gone: 1 };
  expect(sweepCellOf(faulty, false).text).toBe("3 2!");
  expect(sweepCellOf(faulty, true)).toEqual({
    text: "3 2? 2!",
    isClean: false,
    words: "3 lost, 2 of 3 showings not answered, 2 unwanted or gone",
  });
  const late = { ...EMPTY, unanswered: 2 };
  expect(sweepCellOf(late, true)).toMatchObject({ text: "2?", isClean: false });
  expect(sweepCellOf(late, false)).toMatchObject({ text: "●", isClean: true });
  expect(sweepCellOf({ ...EMPTY, runs: 0 }, true)).toMatchObject({ text: "", isClean: false });
});

test("showings are not named for a difference between rows of which one still runs", () => {
  const showings = { ...REQUESTED, answered: 2, unanswered: 2 };
  const whole = [{ ...showings, runs: 8, repetitions: 4 }];
  const running = [{ ...showings, unanswered: 1, runs: 6, repetitions: 3 }];
  expect(areShowingsNamed([...whole, ...running])).toBe(true);
  expect(areShowingsNamed(keepWholeRows([whole, running], 4).flatMap(row => row ?? []))).toBe(false);
});
