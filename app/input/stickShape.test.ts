import { describe, expect, test } from "vitest";
import { createHeld } from "./held";
import { shapeStick } from "./stickShape";

/** Returns the sides that have a value at an angle in degrees, as letters. */
const sidesAt = (degrees: number, shape: Parameters<typeof shapeStick>[2]) => {
  const turn = (degrees * Math.PI) / 180;
  const sides = shapeStick(Math.cos(turn), Math.sin(turn), shape);
  return Object.entries(sides)
    .flatMap(([side, value]) => (value > 0.5 ? [side[0]] : []))
    .join("");
};

describe("a stick's shape", () => {
  test("eight equal sectors change half way between two directions", () =>
    expect([0, 22, 23, 67, 68, 112, 113, 180, 270].map(at => sidesAt(at, { ways: 8 }))).toEqual([
      "r",
      "r",
      "ur",
      "ur",
      "u",
      "u",
      "ul",
      "l",
      "d",
    ]));

  test("four sectors have no diagonals", () =>
    expect([0, 44, 46, 134, 136, 226].map(at => sidesAt(at, { ways: 4 }))).toEqual([
      "r",
      "r",
      "u",
      "u",
      "l",
      "d",
    ]));

  test("a circle measures the distance, a square the larger half-axis", () => {
    expect(shapeStick(0.4, 0.4, { zone: "circle" }).right).toBeCloseTo(0.566, 3);
    expect(shapeStick(0.4, 0.4, { zone: "axis", ways: 8 }).right).toBe(0.4);
    expect(shapeStick(0.4, 0.3, {})).toEqual({ up: 0.3, down: 0, left: 0, right: 0.4 });
  });

  test("held half-axes of a pad are shaped together; keys on the same controls keep their value", () => {
    const held = createHeld();
    const controls = [
      { id: "u", bindings: [["key:KeyW"], ["pad:axis1-"]] },
      { id: "d", bindings: [["pad:axis1+"]] },
      { id: "l", bindings: [["pad:axis0-"]] },
      { id: "r", bindings: [["pad:axis0+"]] },
    ];
    const stick = { id: "s", name: "S", up: "u", down: "d", left: "l", right: "r", ways: 4 as const };
    held.setControls(controls, [stick]);
    held.report({ code: "pad:axis0+", value: 0.9, isRepeat: false });
    held.report({ code: "pad:axis1-", value: 0.6, isRepeat: false });
    expect([held.valueOf("r"), held.valueOf("u")]).toEqual([0.9, 0]);
    held.report({ code: "key:KeyW", value: 1, isRepeat: false });
    expect([held.valueOf("r"), held.valueOf("u")]).toEqual([0.9, 1]);
  });
});
