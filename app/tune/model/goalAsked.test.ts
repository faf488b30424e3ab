import { expect, test } from "vitest";
import { CHARACTERS } from "#core";
import type { GoalAsked } from "../../document/studySettings";
import { readKitAndTakes } from "../../tests/evaluated";
import { isSameGoal } from "./goalAsked";
import { listSwept } from "./sweptNumbers";

const [one, two] = listSwept(readKitAndTakes("demo/belfry-runner").kit);
const ASKED: GoalAsked = {
  groups: ["all"],
  isOwnHand: false,
  one: one!,
  two,
  rows: [0, 5, 10],
  ranges: [
    { from: 0, to: 20 },
    { from: 0, to: 10 },
  ],
  character: CHARACTERS[0]!,
  seed: 1,
  count: 200,
  control: "",
  pressPercent: 99,
};

test("another range, seed, hand, share or number is another question; a kept value is not", () => {
  const others: Partial<GoalAsked>[] = [
    { ranges: [{ from: 0, to: 12 }, ASKED.ranges[1]!] },
    { seed: 2 },
    { count: 100 },
    { character: CHARACTERS[1]! },
    { pressPercent: 95 },
    { two: undefined },
    { one: two! },
    { control: "leap" },
    { groups: ["Oda", "Wren"] },
  ];
  for (const other of others)
    expect(isSameGoal(ASKED, { ...ASKED, ...other }), JSON.stringify(other)).toBe(false);
  const kept = { ...ASKED, one: { ...one!, present: 12, words: "Hop: buffer (12f)" }, rows: [0, 5, 10, 12] };
  expect(isSameGoal(ASKED, kept)).toBe(true);
});
