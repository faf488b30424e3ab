import { expect, test } from "vitest";
import { drawTake, mustCompile, sketchKit } from "../../core/tests/strips";
import { findPressX, isMarkedUnmeant, toggleUnmeant } from "./markUnmeant";

const PROGRAM = mustCompile(sketchKit("ab", {}));
const TAKE = { ...drawTake({ a: "..##..8###4....#", b: "#..............." }), rate: 60 };

test("a press is found by the frame on which it goes down, also an analog one that rises slowly", () => {
  expect([2, 6, 15, 3].map(frame => findPressX(PROGRAM, TAKE, 0, frame))).toEqual([2, 6, 15, undefined]);
  // At 30 frames a second, position 3 is frame 6 of the kit.
  expect(findPressX(PROGRAM, { ...TAKE, rate: 30 }, 0, 12)).toBe(6);
});

test("a press is marked as not meant, and as meant again; nothing is left of the last mark", () => {
  const once = toggleUnmeant(PROGRAM, TAKE, 0, 6);
  expect(once.unmeant).toEqual({ a: [6] });
  expect([isMarkedUnmeant(PROGRAM, once, 0, 6), isMarkedUnmeant(PROGRAM, once, 0, 2)]).toEqual([true, false]);
  const both = toggleUnmeant(PROGRAM, toggleUnmeant(PROGRAM, once, 0, 2), 1, 0);
  expect(both.unmeant).toEqual({ a: [2, 6], b: [0] });
  expect(toggleUnmeant(PROGRAM, once, 0, 6)).toEqual(TAKE);
  expect(toggleUnmeant(PROGRAM, TAKE, 0, 4)).toBe(TAKE);
});
