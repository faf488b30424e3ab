import { expect, test } from "vitest";
import type { Take } from "#core";
import { moveMarks } from "./pressMarks";
import { copyStretch, pasteClip, shiftStretch, wipeStretch } from "./takeClips";
import { paintControl } from "./takeEdits";

const TAKE: Take = {
  ...{ format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames: 60 },
  lanes: {
    a: [
      [2, 1],
      [6, 0],
      [20, 1],
      [25, 0],
    ],
    b: [[30, 1]],
  },
  unmeant: { a: [20], b: [30] },
};

test("the mark of a press goes with it when a stretch is moved, copied or cleared", () => {
  expect(shiftStretch(TAKE, 18, 28, 1).unmeant).toEqual({ a: [21], b: [30] });
  expect(shiftStretch(TAKE, 0, 10, 20).unmeant).toEqual({ b: [30] });
  expect(wipeStretch(TAKE, 18, 28).unmeant).toEqual({ b: [30] });
  expect("unmeant" in wipeStretch(TAKE, 18, 40)).toBe(false);
  expect(pasteClip(TAKE, copyStretch(TAKE, 18, 28), 40).unmeant).toEqual({ a: [20, 42], b: [30] });
  // A press that is copied from its middle on is another one.
  expect(pasteClip(TAKE, copyStretch(TAKE, 22, 28), 40).unmeant).toEqual({ a: [20], b: [30] });
  const { unmeant: _unmeant, ...bare } = TAKE;
  expect("unmeant" in shiftStretch(bare, 18, 28, 5)).toBe(false);
});

test("the mark of a press goes with it when it is moved or made longer on its lane, and away when it is wiped", () => {
  const paint = (from: number, to: number, filled?: readonly [number, number]) => {
    const wiped = paintControl(TAKE, "a", from, to, false);
    const painted = filled ? paintControl(wiped, "a", filled[0], filled[1], true) : wiped;
    return moveMarks(painted, "a", from, to, filled?.[0]).unmeant;
  };
  expect(paint(20, 25, [33, 38])).toEqual({ a: [33], b: [30] });
  expect(paint(20, 25, [17, 25])).toEqual({ a: [17], b: [30] });
  expect(paint(20, 25, [20, 40])).toEqual({ a: [20], b: [30] });
  expect(paint(2, 6, [9, 13])).toEqual({ a: [20], b: [30] });
  expect(paint(20, 25)).toEqual({ b: [30] });
  // Grown together with the press before it, it is no press of its own.
  expect(paint(20, 25, [6, 25])).toEqual({ b: [30] });
});
