import { expect, test } from "vitest";
import { parseFrames } from "#core";
import { otherUnit, readLength, stepLength } from "./lengthText";

test.each([
  ["12f", "6f", { ok: true, value: "12f" }],
  [" 200 ms ", "6f", { ok: true, value: "200ms" }],
  ["16,667ms", "6f", { ok: true, value: "16.667ms" }],
  ["9", "6f", { ok: true, value: "9f" }],
  ["90", "100ms", { ok: true, value: "90ms" }],
  ["0.3s", "6f", { ok: true, value: "300ms" }],
  ["0,25 s", "100ms", { ok: true, value: "250ms" }],
  ["12 frames", "100ms", { ok: true, value: "12f" }],
  ["2.6", "6f", { ok: false, reason: "frames are whole: write 3f, or a time in ms" }],
  ["", "6f", { ok: false, reason: "nothing is not a length: write 12f or 200ms" }],
  ["six", "6f", { ok: false, reason: "six is not a length: write 12f or 200ms" }],
  ["0f", "6f", { ok: false, reason: "at least 1f (16.7 ms) here" }],
])("typing %j over %s", (typed, current, expected) => {
  expect(readLength(typed, current, 60, "atLeast", 1)).toEqual(expected);
});

test("stepping moves whole frames in either unit, and stops at the minimum", () => {
  expect(stepLength("6f", 1, 60, "atLeast", 0)).toBe("7f");
  expect(stepLength("6f", -9, 60, "atLeast", 1)).toBe("1f");
  for (const rounding of ["atLeast", "atMost"] as const) {
    for (let frames = 1; frames < 200; frames++) {
      const written = stepLength(
        "0.001ms",
        frames - (parseFrames("0.001ms", 60, rounding) ?? 0),
        60,
        rounding,
        0,
      );
      expect(parseFrames(written, 60, rounding)).toBe(frames);
    }
  }
});

test("a length is shown with the other unit", () => {
  expect(otherUnit("6f", 60, "atLeast")).toBe("100 ms");
  expect(otherUnit("90ms", 60, "atLeast")).toBe("6f");
  expect(otherUnit("90ms", 60, "atMost")).toBe("5f");
});
