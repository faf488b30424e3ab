import { expect, test } from "vitest";
import { landingFrame } from "./clock";
import { isShorterAsWritten, parseFrames } from "./duration";

test.each([
  ["6f", 60, 6, 6],
  ["100ms", 60, 6, 6],
  ["99ms", 60, 6, 5],
  ["100.001ms", 60, 7, 6],
  ["16.667ms", 60, 2, 1],
  ["16.666ms", 60, 1, 0],
  ["0ms", 60, 0, 0],
  ["1ms", 1000, 1, 1],
  ["0.001ms", 1, 1, 0],
  ["333.333ms", 30, 10, 9],
  ["1001ms", 24, 25, 24],
])("%s at %i Hz is %i frames at least and %i at most", (text, rate, atLeast, atMost) => {
  expect(parseFrames(text, rate, "atLeast")).toBe(atLeast);
  expect(parseFrames(text, rate, "atMost")).toBe(atMost);
});

test.each(["12", "f", "-1f", "1.5f", "1.0001ms", "1 ms", "1s", "", "1e3f"])("%j is no length", text => {
  expect(parseFrames(text, 60, "atLeast")).toBeUndefined();
});

test("lengths compare as written, before any rounding", () => {
  expect(isShorterAsWritten("90ms", "95ms", 60)).toBe(true);
  expect(isShorterAsWritten("100ms", "6f", 60)).toBe(false);
  expect(isShorterAsWritten("99.999ms", "6f", 60)).toBe(true);
});

test.each([
  [0, 60, 60, 0],
  [3.0000005, 60, 60, 3],
  [3.000002, 60, 60, 4],
  [3.2, 60, 60, 4],
  [1, 60, 120, 1],
  [1.5, 120, 60, 3],
])("%d lands at %i Hz from %i Hz on frame %i", (x, kitRate, takeRate, frame) => {
  expect(landingFrame(x, kitRate, takeRate)).toBe(frame);
});
