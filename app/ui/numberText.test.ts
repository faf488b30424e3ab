import { expect, test } from "vitest";
import { formatBounds, formatFixed, readNumber, stepNumber } from "./numberText";

test("bounds are formatted in words", () => {
  expect(formatBounds({ least: 0, most: 1 })).toBe("a number from 0 to 1");
  expect(formatBounds({ least: 1, isWhole: true })).toBe("a whole number, at least 1");
  expect(formatBounds({ most: 9 })).toBe("a number, at most 9");
  expect(formatBounds({})).toBe("a number");
});

test.each([
  ["0", true],
  ["1", true],
  ["0,45", true],
  [" 0.5 ", true],
  ["1.01", false],
  ["-0.01", false],
  ["", false],
  ["fast", false],
])("'%s' typed for a share fits: %s", (typed, fits) => {
  expect(readNumber(typed, { least: 0, most: 1 }).ok).toBe(fits);
});

test("a number out of bounds is reported with the bounds; a whole number has no decimals", () => {
  expect(readNumber("1.5", { least: 1, isWhole: true })).toEqual({
    ok: false,
    reason: "1.5 does not fit: a whole number, at least 1",
  });
  expect(readNumber("0,45", {})).toEqual({ ok: true, value: "0.45" });
});

test("a step is one of the last decimal, a hundredth for a share, and stops at the bounds", () => {
  expect(stepNumber("19", 1, { least: 0 })).toBe("20");
  expect(stepNumber("1.5", -2, {})).toBe("1.3");
  expect(stepNumber("1", -1, { least: 0, most: 1 })).toBe("0.99");
  expect(stepNumber("0.45", 100, { least: 0, most: 1 })).toBe("1");
  expect(stepNumber("1", -1, { least: 1, isWhole: true })).toBe("1");
  expect(stepNumber("-2", -3, {})).toBe("-5");
});

test("a number with decimals has a minus sign only below zero", () => {
  expect([-1e-12, -0, 0.04, -0.05, -1.25, 12].map(value => formatFixed(value, 1))).toEqual([
    "0.0",
    "0.0",
    "0.0",
    "−0.1",
    "−1.3",
    "12.0",
  ]);
});
