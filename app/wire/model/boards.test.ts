import { expect, test } from "vitest";
import { CODE_PATTERN } from "#core";
import { formatBinding, formatCode } from "../../input/codes";
import { keyLabels } from "../../input/keyLabels";
import { countBins } from "../../ui/Histogram";
import { BOARD_SIZE, layoutBoard, PAD_SPOTS } from "./boards";

test("every key of the drawn board is a code the kit can hold, none lies on another, none outside", () => {
  const keys = layoutBoard();
  expect(new Set(keys.map(key => key.code)).size).toBe(keys.length);
  for (const key of keys) {
    expect(key.code).toMatch(CODE_PATTERN);
    expect(key.x + key.width).toBeLessThanOrEqual(BOARD_SIZE.width + 1e-9);
    const overlapping = keys.filter(
      other =>
        other !== key &&
        other.y === key.y &&
        other.x < key.x + key.width - 1e-9 &&
        key.x < other.x + other.width - 1e-9,
    );
    expect(overlapping).toEqual([]);
  }
});

test("every button and half-axis of the drawn pad is a code, none lies on another", () => {
  for (const spot of PAD_SPOTS) {
    expect(spot.code).toMatch(CODE_PATTERN);
    const near = PAD_SPOTS.filter(
      other => other !== spot && Math.hypot(other.x - spot.x, other.y - spot.y) < other.r + spot.r - 1.5,
    );
    expect(near.map(other => other.code)).toEqual([]);
  }
  for (let button = 0; button <= 16; button++)
    expect(PAD_SPOTS.some(spot => spot.code === `pad:${button}`)).toBe(true);
});

test("codes are formatted for people, with letters of the user's keyboard if known", () => {
  expect(formatBinding(["key:ShiftLeft", "key:KeyQ"])).toBe("left Shift + Q");
  expect(formatCode("pad:axis0-")).toBe("pad axis 0 back");
  expect(formatCode("mouse:2")).toBe("right click");
  keyLabels.setState(new Map([["KeyQ", "A"]]), true);
  expect(formatCode("key:KeyQ")).toBe("A");
  expect(formatCode("key:Space")).toBe("Space");
  keyLabels.setState(new Map(), true);
});

test("a distribution counts what lies beyond its end in the last bin", () => {
  expect(countBins([0, 3.9, 4, 11, 400], 4, 3)).toEqual([2, 1, 2]);
  expect(countBins([], 4, 2)).toEqual([0, 0]);
});
