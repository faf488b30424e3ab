import { expect, test } from "vitest";
import { closedHeight, findJumpFacts } from "./jumpFacts";
import { framesToTop, launchForHeight, launchForTop, type Launch } from "./findLaunch";
import type { RunnerDocument } from "./runner/schema";

const STAGE: RunnerDocument = {
  kind: "runner",
  tilePx: 32,
  level: ["@"],
  run: { left: "l", right: "r", speed: 6, accel: 60 },
  fall: { up: 52, down: 70, most: 22 },
  height: { by: "fixed" },
  gates: {},
};
const NOW: Launch = { speed: 19, gravityUp: 52 };
const FULL = 60;

const factsOf = (stage: RunnerDocument, { speed, gravityUp }: Launch, held = FULL) =>
  findJumpFacts({ ...stage, fall: { ...stage.fall, up: gravityUp } }, 60, speed, held);

test("4 tiles in 0.4 s: gravity 2h/t², launch speed a half frame above t times it", () => {
  const high = launchForHeight(STAGE, 60, FULL, NOW, 4, "both");
  const launch = launchForTop(STAGE, 60, FULL, high, 24);
  // After n frames of v = g·(n + ½)/60 the height is g·n²/2 in frames squared: g = 2 · 4 / 0.4² = 50.
  expect(launch.gravityUp).toBeCloseTo(50, 3);
  expect(launch.speed).toBeCloseTo((50 * 24.5) / 60, 3);
  expect(closedHeight(launch.speed, launch.gravityUp, 60)).toBeCloseTo(4, 6);
  expect(framesToTop(factsOf(STAGE, launch))).toBe(24);
});

test("a height keeps the time to the top, the gravity or the launch speed, as is wanted", () => {
  const before = framesToTop(factsOf(STAGE, NOW));
  for (const height of [0.5, 2, 3.31, 6]) {
    const both = launchForHeight(STAGE, 60, FULL, NOW, height, "both");
    expect(factsOf(STAGE, both).height).toBeCloseTo(height, 6);
    expect(framesToTop(factsOf(STAGE, both))).toBe(before);
    const speed = launchForHeight(STAGE, 60, FULL, NOW, height, "speed");
    expect([speed.gravityUp, factsOf(STAGE, speed).height]).toEqual([52, expect.closeTo(height, 6)]);
    const gravity = launchForHeight(STAGE, 60, FULL, NOW, height, "gravity");
    expect(gravity.speed).toBe(19);
    expect(factsOf(STAGE, gravity).height).toBeCloseTo(height, 6);
  }
});

test("every rule of a jump's height, a hang too, meets height and time, for any press", () => {
  const heights: RunnerDocument["height"][] = [
    { by: "fixed" },
    { by: "cut", control: "l", to: 0.45 },
    { by: "float", control: "l", share: 0.5 },
    { by: "lift", control: "l", for: "12f", share: 0.2 },
  ];
  for (const height of heights)
    for (const hang of [undefined, { within: 3, share: 0.6 }])
      for (const held of [FULL, 9]) {
        const { fall } = STAGE;
        const stage = { ...STAGE, height, fall: hang ? { ...fall, hang } : fall };
        const launch = launchForHeight(stage, 60, held, NOW, 2.5, "both");
        expect(factsOf(stage, launch, held).height).toBeCloseTo(2.5, 3);
        const timed = launchForTop(stage, 60, FULL, NOW, 30);
        expect(factsOf(stage, timed).height).toBeCloseTo(factsOf(stage, NOW).height, 2);
        expect(Math.abs(framesToTop(factsOf(stage, timed)) - 30)).toBeLessThanOrEqual(hang ? 3 : 0);
      }
});

test("a height out of reach stops at the greatest number", () => {
  const launch = launchForHeight(STAGE, 60, FULL, NOW, 1e6, "speed");
  expect(launch.speed).toBeCloseTo(1000, 6);
});
