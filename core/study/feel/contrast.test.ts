import { expect, test } from "vitest";
import { contrastGroups, formatContrast, type GroupFeel } from "./contrast";
import type { MoveFeel } from "./feelReport";

/** A move with so many used and lost presses. */
const moveOf = (move: number, used: number, lost: number) =>
  ({
    move,
    rooms: Array.from({ length: used }, () => ({})),
    misses: Array.from({ length: lost }, () => ({})),
  }) as unknown as MoveFeel;

const groupOf = (name: string, ...counts: readonly (readonly [number, number])[]): GroupFeel => ({
  name,
  moves: counts.map(([used, lost], move) => moveOf(move, used, lost)),
});

const NAMES = ["Hop", "Chime", "Toll"];
const formatOf = (groups: readonly GroupFeel[]) =>
  formatContrast(contrastGroups(groups), groups, move => NAMES[move]!);

test("moves are ordered by the distance between the intervals of the shares lost", () => {
  const groups = [groupOf("Ada", [40, 0], [9, 1], [0, 0]), groupOf("Wren", [20, 20], [10, 0], [0, 0])];
  const [hop, chime, ...others] = contrastGroups(groups);
  expect(others).toEqual([]);
  expect([hop!.move, hop!.most, hop!.least]).toEqual([0, 1, 0]);
  // 20 of 40: 35.2 to 64.8 %; 0 of 40: 0 to 8.8 %, by the score interval.
  expect(hop!.apart).toBeCloseTo(0.352 - 0.0876, 2);
  expect(chime!.apart).toBeLessThan(0);
  expect(formatOf(groups)).toBe("Hop differs most: Wren loses 20 of 40 presses, Ada none of 40.");
});

test("few presses may differ by chance; without a difference there is no sentence", () => {
  expect(formatOf([groupOf("Ada", [12, 0]), groupOf("Wren", [9, 1])])).toBe(
    "Hop differs most: Wren loses 1 of 10 presses, Ada none of 12; so few may differ by chance.",
  );
  expect(formatOf([groupOf("Ada", [12, 0]), groupOf("Wren", [9, 0])])).toBeUndefined();
  expect(formatOf([groupOf("Ada", [12, 3]), groupOf("Wren", [0, 0])])).toBeUndefined();
  expect(contrastGroups([])).toEqual([]);
  // Many presses of which no share differs do not hide a few of which it does.
  expect(formatOf([groupOf("Ada", [50, 0], [2, 1]), groupOf("Wren", [50, 0], [3, 0])])).toMatch(
    /^Chime differs most: Ada/,
  );
});
