import fc from "fast-check";
import { expect, test } from "vitest";
import { DOT_RADIUS, MAX_DOTS, pileDots } from "./pileDots";

const AREA = { top: 10, pitchPx: 12, rows: 3 };
const at = (...xs: readonly number[]) => xs.map(x => ({ x, look: "whole" as const }));
const rowsOf = (...xs: readonly number[]) => pileDots(at(...xs), AREA).dots.map(({ y }) => (y - 10) / 12);

test("dots at one place pile up, those apart share the first row", () => {
  expect(rowsOf(0, 100, 100, 40, 100, 45)).toEqual([0, 0, 1, 0, 2, 1]);
});

test("no dot covers another, and counts in the last row include all that are not drawn", () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: -20, max: 300, noNaN: true }), { maxLength: 60 }), xs => {
      const { dots, counts } = pileDots(at(...xs), AREA);
      const drawn = dots.filter(dot => !dot.isCounted);
      drawn.forEach((dot, k) => {
        const near = drawn
          .slice(0, k)
          .filter(({ y, x }) => y === dot.y && Math.abs(x - dot.x) < 2 * DOT_RADIUS + 1);
        expect(near).toEqual([]);
        if (counts.length > 0) expect(dot.y).toBeLessThan(34);
      });
      counts.slice(1).forEach(({ x }, k) => expect(x - counts[k]!.x).toBeGreaterThanOrEqual(30));
      expect(drawn.length + counts.reduce((sum, { count }) => sum + count, 0)).toBe(xs.length);
    }),
  );
  expect(pileDots(at(20, 20, 20), AREA).counts).toEqual([]);
  expect(pileDots(at(20, 20, 20, 20, 30, 90), AREA).counts).toEqual([{ x: 20, y: 34, count: 2 }]);
  // A dense stretch has a count for each part of it, near its place.
  const dense = Array.from({ length: 300 }, (_, k) => k);
  const { counts } = pileDots(at(...dense), AREA);
  expect(counts.length).toBeGreaterThan(8);
  counts.forEach(({ x, count }, k) => {
    expect(count).toBeLessThan(31);
    expect(Math.abs(x - 30 * k - 15)).toBeLessThan(16);
  });
  const many = pileDots(at(...Array.from({ length: MAX_DOTS + 5 }, () => 0)), AREA);
  expect(many.dots).toHaveLength(MAX_DOTS);
  expect(many.counts).toEqual([{ x: 0, y: 34, count: MAX_DOTS + 3 }]);
});
