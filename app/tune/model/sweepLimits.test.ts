import { expect, test } from "vitest";
import type { SweepPoint } from "#core";
import { EMPTY_POINT } from "../../tests/emptyPoint";
import { formatLimits } from "./sweepLimits";

const point = (value: number, lostPresses: number, unwanted = 0, gone = 0): SweepPoint => ({
  ...EMPTY_POINT,
  ...{ value, runs: 4, lostPresses, unwanted, gone },
});
const limits = (points: readonly SweepPoint[], present = 1) =>
  formatLimits(points, present, value => `${value}f`);

test("a limit names the value beside it and the presses or events that decide it", () => {
  expect(limits([point(0, 5), point(1, 1), point(2, 0), point(3, 0, 1)])).toEqual([
    "From 2f up, nothing wanted is lost; at 1f, the value below, 1 press is lost: this limit rests on it alone.",
    "Up to 2f there is nothing unwanted; at 3f there is one unwanted event: this limit rests on it alone.",
  ]);
  expect(limits([point(0, 3, 0, 2), point(1, 0), point(2, 0, 4)])).toEqual([
    "From 1f up, nothing wanted is lost; at 0f, the value below, 3 presses are lost and 2 events are gone.",
    "Up to 1f there is nothing unwanted; at 2f there are 4 unwanted events.",
  ]);
});

test("a limit at an end of the sweep rests on nothing, and a value above that loses again is named", () => {
  expect(limits([point(0, 0), point(1, 0)])).toEqual([
    "From 0f up, nothing wanted is lost; no lower value was swept.",
    "Up to 1f, where the sweep ends, there is nothing unwanted.",
  ]);
  expect(limits([point(0, 2), point(1, 0), point(2, 1)])[0]).toMatch(
    /^At 1f nothing wanted is lost, but something is at values above; at 0f/,
  );
  expect(limits([point(1, 2), { ...point(2, 0), runs: 0 }], 5)).toEqual([
    "At every value swept something wanted is lost or gone.",
    "The present value was not swept.",
  ]);
});
