import { expect, test } from "vitest";
import type { Take } from "#core";
import { convertTake, paintControl, paintGate, setStretch } from "./takeEdits";

test.each([
  [
    "on an empty lane",
    [],
    4,
    7,
    1,
    [
      [4, 1],
      [7, 0],
    ],
  ],
  [
    "inside a press changes nothing",
    [
      [2, 1],
      [9, 0],
    ],
    4,
    7,
    1,
    [
      [2, 1],
      [9, 0],
    ],
  ],
  [
    "wiping the middle parts a press in two",
    [
      [2, 1],
      [9, 0],
    ],
    4,
    7,
    0,
    [
      [2, 1],
      [4, 0],
      [7, 1],
      [9, 0],
    ],
  ],
  [
    "lengthening over the end",
    [
      [2, 1],
      [5, 0],
    ],
    4,
    8,
    1,
    [
      [2, 1],
      [8, 0],
    ],
  ],
  [
    "joining two presses",
    [
      [2, 1],
      [4, 0],
      [6, 1],
      [8, 0],
    ],
    3,
    7,
    1,
    [
      [2, 1],
      [8, 0],
    ],
  ],
  [
    "wiping a whole press",
    [
      [2, 1],
      [5, 0],
    ],
    2,
    5,
    0,
    [],
  ],
  [
    "analog values outside stay to the letter",
    [
      [1.25, 0.3],
      [2.5, 0.8],
      [9.75, 0.2],
    ],
    4,
    6,
    0,
    [
      [1.25, 0.3],
      [2.5, 0.8],
      [4, 0],
      [6, 0.8],
      [9.75, 0.2],
    ],
  ],
] as const)("a stretch %s", (_what, lane, from, to, value, expected) => {
  expect(setStretch<number>(lane, from, to, value, 0)).toEqual(expected);
});

const TAKE: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  rate: 60,
  frames: 20,
  lanes: {
    a: [
      [2, 1],
      [5, 0],
    ],
  },
};

test("painting changes neither the given take nor other lanes", () => {
  const painted = paintControl(TAKE, "b", 3, 6, true);
  expect(painted.lanes).toEqual({
    a: [
      [2, 1],
      [5, 0],
    ],
    b: [
      [3, 1],
      [6, 0],
    ],
  });
  expect(painted.lanes.a).toBe(TAKE.lanes.a);
  expect(TAKE.lanes).not.toHaveProperty("b");
  expect(paintGate(TAKE, "g", 0, 4, true).gates).toEqual({
    g: [
      [0, 1],
      [4, 0],
    ],
  });
});

test("a take brought to another rate keeps every place in seconds, and its judgement lands alike", () => {
  const converted = convertTake({ ...TAKE, speed: [[3, 50]], gates: { g: [[1, 1]] } }, 120);
  expect(converted).toMatchObject({
    rate: 120,
    frames: 40,
    lanes: {
      a: [
        [4, 1],
        [10, 0],
      ],
    },
    gates: { g: [[2, 1]] },
    speed: [[6, 50]],
  });
  expect(convertTake(converted, 60).lanes).toEqual(TAKE.lanes);
});

test("unrecorded time, marks of unmeant presses and acts of a game keep their places in seconds as well", () => {
  const take: Take = { ...TAKE, gaps: [[6, 250]], unmeant: { a: [2] }, did: { hop: [3, 5], roll: [] } };
  const converted = convertTake(take, 120);
  expect(converted).toMatchObject({
    gaps: [[12, 250]],
    unmeant: { a: [4] },
    did: { hop: [6, 10], roll: [] },
  });
  // The mark is still that of the press, whose pair has moved alike.
  expect(converted.lanes.a![0]![0]).toBe(converted.unmeant!.a![0]);
  expect(convertTake(converted, 60)).toEqual(take);
});
