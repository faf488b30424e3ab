import { expect, test } from "vitest";
import type { Kit } from "#core";
import { readKitAndTakes } from "../../tests/evaluated";
import { chargedLeap, fixedLeap, heightBy } from "./leaps";
import { lengthIn } from "./lengthUnits";

const { kit: RUNNER } = readKitAndTakes("demo/belfry-runner");

test("a leap of fixed speed is found with its control and the path of its speed", () => {
  const leap = fixedLeap(RUNNER)!;
  expect(leap.control).toBe("leap");
  expect(leap.presses.map(({ name }) => name)).toEqual(["tap", "half", "full"]);
  expect(leap.numbers[0]).toMatchObject({ path: ["moves", expect.any(Number), "effect", "leap"] });
  const off = { ...RUNNER, moves: RUNNER.moves!.map(move => ({ ...move, off: true })) };
  expect([fixedLeap(off), chargedLeap(off)]).toEqual([undefined, undefined]);
});

test("a leap by a charge launches between its outputs", () => {
  const kit: Kit = {
    ...RUNNER,
    patterns: [
      { kind: "charge", id: "c", name: "C", control: "leap", full: "60f", fire: "release", output: [4, 12] },
    ],
    moves: [{ id: "m", name: "M", pattern: "c", effect: { leap: "output" } }],
  };
  expect(fixedLeap(kit)).toBeUndefined();
  const leap = chargedLeap(kit)!;
  expect(leap.presses.map(({ speed }) => speed)).toEqual([4, 8, 12]);
  expect(leap.numbers.map(({ path }) => path)).toEqual([
    ["patterns", 0, "output", 0],
    ["patterns", 0, "output", 1],
  ]);
});

test("every way of varying a height has valid defaults, and a length in px is stored in tiles", () => {
  expect(["lift", "float", "cut", "fixed", "charged", "other"].map(by => heightBy(by, "leap").by)).toEqual([
    "lift",
    "float",
    "cut",
    "fixed",
    "charged",
    "fixed",
  ]);
  expect(lengthIn("px", 32).show(2.5)).toBe(80);
  expect(lengthIn("px", 32).read(80)).toBe(2.5);
  expect(lengthIn("tiles", 32).read(80)).toBe(80);
});
