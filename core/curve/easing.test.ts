import { expect, test } from "vitest";
import { evaluateEasing, parseEasing } from "./easing";
import { formatSmoothCurve } from "./smooth";

function at(curve: string, x: number): number {
  const parsed = parseEasing(curve);
  if (!parsed.ok) throw new Error(parsed.detail);
  return evaluateEasing(parsed.value, x);
}

/** Solves the curve by bisection, as a reference for the test. */
function bisect(x1: number, y1: number, x2: number, y2: number, x: number): number {
  const along = (a: number, b: number, t: number) =>
    3 * a * t * (1 - t) ** 2 + 3 * b * t * t * (1 - t) + t ** 3;
  let low = 0;
  let high = 1;
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (along(x1, x2, middle) < x) low = middle;
    else high = middle;
  }
  return along(y1, y2, (low + high) / 2);
}

test.each([
  ["ease", [0.25, 0.1, 0.25, 1]],
  ["ease-in", [0.42, 0, 1, 1]],
  ["ease-out", [0, 0, 0.58, 1]],
  ["ease-in-out", [0.42, 0, 0.58, 1]],
  ["cubic-bezier(0.34, 1.56, 0.64, 1)", [0.34, 1.56, 0.64, 1]],
] as const)("%s agrees with bisection to nine decimals", (curve, [x1, y1, x2, y2]) => {
  for (let x = 0; x <= 1; x += 0.05) expect(at(curve, x)).toBeCloseTo(bisect(x1, y1, x2, y2, x), 9);
});

test.each([
  ["linear", 0.3, 0.3],
  ["LINEAR( 0, 1 )", 0.25, 0.25],
  ["linear(0, 0.8 25%, 1)", 0.25, 0.8],
  ["linear(0, 0.8 25%, 1)", 0.625, 0.9],
  ["linear(0, 0.5 20% 60%, 1)", 0.4, 0.5],
  ["linear(0, 0.1, 0.4, 1)", 0.5, 0.25],
  ["linear(0 20%, 1 80%)", 0, -1 / 3],
  ["linear(0, 1 50%, 0 50%, 1)", 0.5, 0],
  ["linear(0, 1 60%, 2 40%, 3)", 0.6, 2],
  ["linear(0.5)", 0.9, 0.5],
  ["steps(4)", 0.74, 0.5],
  ["steps(4, jump-start)", 0, 0.25],
  ["step-end", 0.999, 0],
])("%s at %d is %d", (curve, x, y) => {
  expect(at(curve, x)).toBeCloseTo(y, 12);
});

test.each([
  "",
  "swoop",
  "cubic-bezier(1,2,3)",
  "cubic-bezier(-0.1,0,1,1)",
  "linear()",
  "linear(0 1, 1)",
  "linear(0% 10% 20%, 1)",
  "steps(0)",
  "ease(1)",
])("%j is refused with a reason", curve => {
  const parsed = parseEasing(curve);
  expect(!parsed.ok && parsed.detail.length).toBeGreaterThan(10);
});

test("a smooth curve goes through its points, never overshoots, and is CSS linear()", () => {
  const points = [
    { x: 0, y: 0 },
    { x: 0.3, y: 0.1 },
    { x: 0.5, y: 0.9 },
    { x: 1, y: 1 },
  ];
  const curve = formatSmoothCurve(points);
  for (const point of points) expect(at(curve, point.x)).toBeCloseTo(point.y, 4);
  let before = 0;
  for (let x = 0; x <= 1; x += 0.01) {
    expect(at(curve, x)).toBeGreaterThanOrEqual(before - 1e-9);
    before = at(curve, x);
  }
  expect(
    formatSmoothCurve(
      [
        { x: 0, y: 0 },
        { x: 1, y: 1 },
      ],
      1,
    ),
  ).toBe("linear(0 0%, 1 100%)");
});
