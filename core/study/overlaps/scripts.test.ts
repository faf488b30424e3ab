import { expect, test } from "vitest";
import { sketchKit } from "../../tests/strips";
import { settleFrames } from "./scripts";

const kitOf = (gap: string, defer?: string) =>
  sketchKit("a", {
    patterns: [{ id: "t", name: "T", kind: "taps", control: "a", count: 2, gap, answer: "final" }],
    moves: [{ id: "m", name: "M", pattern: "t", ...(defer ? { defer } : {}) }],
  });

test("an input settles after the longest gap of taps and the longest delay of a move, at most ten seconds", () => {
  expect(settleFrames(sketchKit("a", {}))).toBe(0);
  expect(settleFrames(kitOf("12f"))).toBe(12);
  expect(settleFrames(kitOf("12f", "100ms"))).toBe(18);
  expect(settleFrames(kitOf("999999f", "999999f"))).toBe(600);
});
