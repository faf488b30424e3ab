import { expect, test } from "vitest";
import { BODY_HEIGHT, parseLevel, type RunnerProgram } from "#stage";
import { followBody, showWhole, tileUnder } from "./scenery";

const LEVEL = parseLevel([" ".repeat(50), ...Array<string>(9).fill("@"), "#".repeat(50)]);
const STAGE = { level: LEVEL, tilePx: 32 } as RunnerProgram;

test("the whole of a level is in the picture, wide or high", () => {
  for (const [width, height] of [
    [950, 280],
    [400, 600],
    [3000, 2000],
  ] as const) {
    const eye = showWhole(STAGE, width, height);
    expect(eye.px * LEVEL.width).toBeLessThanOrEqual(width);
    expect(eye.foot - eye.px * LEVEL.height).toBeGreaterThanOrEqual(0);
    expect(eye.foot).toBeLessThanOrEqual(height);
    expect(eye.px).toBeLessThanOrEqual(STAGE.tilePx);
  }
});

test("the tile under a place is the one drawn there, from its upper left corner to its lower right", () => {
  const eye = showWhole(STAGE, 950, 280);
  for (const [column, row] of [
    [0, 0],
    [49, 10],
    [17, 4],
  ] as const) {
    const left = column * eye.px - eye.left;
    const top = eye.foot - (LEVEL.height - row) * eye.px;
    expect(tileUnder(eye, LEVEL.height, left + 0.01, top + 0.01)).toEqual({ column, row });
    expect(tileUnder(eye, LEVEL.height, left + eye.px - 0.01, top + eye.px - 0.01)).toEqual({ column, row });
  }
  expect(tileUnder(eye, LEVEL.height, -eye.left - 1, eye.foot + 1)).toEqual({ column: -1, row: 11 });
});

test("a body that is followed stays in the picture: at both ends, and as high as it leaps", () => {
  for (const [x, y] of [
    [0.5, 1],
    [25, 1],
    [49.5, 1],
    [25, 14],
  ] as const) {
    for (const height of [90, 280, 600]) {
      const eye = followBody(STAGE, x, y, 950, height);
      expect(x * eye.px - eye.left).toBeGreaterThanOrEqual(0);
      expect(x * eye.px - eye.left).toBeLessThanOrEqual(950);
      expect(eye.foot - (y + BODY_HEIGHT) * eye.px).toBeGreaterThan(0);
    }
  }
});

test("a level narrower than the picture is centred", () => {
  const small = { level: parseLevel(["@".padEnd(10), "#".repeat(10)]), tilePx: 20 } as RunnerProgram;
  const eye = followBody(small, 1, 1, 400, 300);
  expect(-eye.left).toBeGreaterThan(0);
  expect(-eye.left).toBe(400 - (10 * eye.px - eye.left));
});

test("each closeness shows what its name promises, with tiles of whole pixels", () => {
  const size = (closeness: "fit" | "near" | "nearer") => followBody(STAGE, 5, 1, 950, 480, closeness).px;
  expect(size("fit") * STAGE.level.width).toBeLessThanOrEqual(950);
  expect(size("near") * STAGE.level.height).toBeLessThanOrEqual(480);
  expect(size("nearer")).toBeGreaterThan(1.3 * size("near"));
  for (const closeness of ["fit", "near", "nearer"] as const)
    expect(Number.isInteger(size(closeness))).toBe(true);
});
