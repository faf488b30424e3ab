import { expect, test } from "vitest";
import type { SweepPoint } from "#core";
import { EMPTY_POINT } from "../../tests/emptyPoint";
import { linesOf } from "./sweepLines";
import { formatPoint } from "./sweepPointWords";

const EMPTY: SweepPoint = { ...EMPTY_POINT, runs: 4 };

const labelsOf = (points: readonly SweepPoint[]) => linesOf(points).map(({ label }) => label);

test("a sweep over moves names the means by which some were performed, and no prompts", () => {
  const first = {
    ...EMPTY,
    performed: { direct: 1, buffer: 2, coyote: 0, both: 0 },
    delays: new Map([[3, 3]]),
  };
  const second = { ...EMPTY, value: 1, lost: { gate: 2 }, lostPresses: 1, runs: 1 };
  const points = [first, second];
  expect(formatPoint(first, points)).toBe(
    "3 performed (1 directly, 2 by buffer), 0 presses lost, 0 saved, 0 unwanted, 0 gone, median delay 3f; n = 4 runs",
  );
  expect(formatPoint(second, points)).toBe(
    "0 performed, 1 press lost (requests: a gate was not open 2 times), 0 saved, 0 unwanted, 0 gone; n = 1 run",
  );
  expect(labelsOf(points)).toEqual(["performed", "by buffer", "presses lost"]);
  expect(labelsOf([EMPTY])).toEqual(["performed"]);
});

test("a sweep over prompts alone names their showings, and no moves", () => {
  const none = { ...EMPTY, unanswered: 4, judged: [0, 2], failed: [2] };
  const some = { ...EMPTY, value: 1, answered: 3, unanswered: 1 };
  expect(formatPoint(none, [none, some])).toBe(
    "0 of 4 showings answered, 0 saved, 0 unwanted, 0 gone, 1 of 2 checks failed in some run; n = 4 runs",
  );
  expect(labelsOf([none, some])).toEqual(["prompts answered"]);
  expect(labelsOf([none])).toEqual(["prompts answered"]);
  const both = [{ ...some, performed: { direct: 1, buffer: 0, coyote: 0, both: 0 } }];
  expect(labelsOf(both)).toEqual(["performed", "prompts answered"]);
});
