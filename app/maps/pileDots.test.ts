import fc from "fast-check";
import { expect, test } from "vitest";
import { DOT_RADIUS } from "./Dots";
import { MAX_DOTS, pileDots } from "./pileDots";

const AREA = { top: 10, pitchPx: 12, rows: 3 };
const at = (...xs: readonly number[]) => xs.map(x => ({ x, look: "whole" as const }));
const rowsOf = (...xs: readonly number[]) => pileDots(at(...xs), AREA).map(({ y }) => (y - 10) / 12);

test("dots at one place pile up, those apart share the first row", () => {
  expect(rowsOf(0, 100, 100, 40, 100, 45)).toEqual([0, 0, 1, 0, 2, 1]);
  expect(rowsOf(20, 20, 20, 20, 20)).toEqual([0, 1, 2, 0, 1]);
});

test("a dot covers another only where no row has space, and the first ones are drawn", () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: -20, max: 300, noNaN: true }), { maxLength: 60 }), xs => {
      const dots = pileDots(at(...xs), AREA);
      dots.forEach((dot, k) => {
        const near = dots.slice(0, k).filter(({ x }) => Math.abs(x - dot.x) < 2 * DOT_RADIUS + 1);
        const rows = new Set(near.map(({ y }) => y));
        if (rows.has(dot.y)) expect(rows.size).toBe(AREA.rows);
      });
    }),
  );
  expect(pileDots(at(...Array.from({ length: MAX_DOTS + 5 }, () => 0)), AREA)).toHaveLength(MAX_DOTS);
});
