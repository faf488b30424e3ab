import { expect, test } from "vitest";
import { createGrowingClock } from "./takeClock";

const speeds = (pairs: readonly (readonly [number, number])[]) => {
  const clock = createGrowingClock();
  for (const [frame, percent] of pairs) clock.turn(frame, percent);
  return clock;
};

/** Counts ticks frame by frame, exactly as the rule is defined. */
function slowTicks(pairs: readonly (readonly [number, number])[], frame: number): number {
  let sum = 0;
  for (let f = 1; f <= frame; f++) sum += pairs.findLast(pair => pair[0] <= f)?.[1] ?? 100;
  return sum;
}

test.each([
  ["no change of speed", []],
  ["slow from the start", [[0, 50]]],
  [
    "a freeze between",
    [
      [4, 0],
      [9, 100],
    ],
  ],
  [
    "slow, fast, and slow again",
    [
      [0, 25],
      [3, 400],
      [10, 10],
    ],
  ],
] as const)("%s: the clock agrees with counting frame by frame", (_what, pairs) => {
  const clock = speeds(pairs);
  for (let frame = 0; frame < 30; frame++) expect(clock.ticksAt(frame)).toBe(slowTicks(pairs, frame));
  for (const age of [0, 1, 100, 250, 900]) {
    const reached = clock.frameAtAge(2, age);
    let slow = 2;
    while (slow < 500 && slowTicks(pairs, slow) - slowTicks(pairs, 2) < age) slow++;
    expect(reached).toBe(slow);
  }
});

test("an age is never reached if a freeze never ends", () => {
  expect(speeds([[5, 0]]).frameAtAge(5, 1)).toBe(Infinity);
  expect(speeds([[5, 0]]).speedAt(4)).toBe(100);
  expect(speeds([[5, 0]]).speedAt(5)).toBe(0);
});
