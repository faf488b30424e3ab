import { parseEasing, type Easing } from "#core";

/** A curve as it can be edited: two handles of a bezier, points joined by straight lines, or neither. */
export type EditableCurve =
  | { readonly kind: "bezier"; readonly handles: readonly [x1: number, y1: number, x2: number, y2: number] }
  | { readonly kind: "points"; readonly points: readonly (readonly [x: number, y: number])[] }
  | { readonly kind: "fixed" };

const round = (value: number) => Math.round(value * 1000) / 1000;

/** The bezier that is the straight line, to start from. */
const STRAIGHT = [0.333, 0.333, 0.667, 0.667] as const;

/** How an easing function can be edited. Source of the named curves' handles: CSS Easing Level 2. */
export function readCurve(easing: Easing): EditableCurve {
  switch (easing.kind) {
    case "bezier":
      return { kind: "bezier", handles: [easing.x1, easing.y1, easing.x2, easing.y2] };
    case "linear":
      return { kind: "bezier", handles: STRAIGHT };
    case "points":
      return {
        kind: "points",
        points: easing.inputs.map((x, k): [number, number] => [x, easing.outputs[k]!]),
      };
    case "steps":
      return { kind: "fixed" };
  }
}

/** A bezier as CSS writes it. Handles stay within the width; they may go above or below. */
export function formatBezier([x1, y1, x2, y2]: readonly [number, number, number, number]): string {
  const within = (x: number) => round(Math.max(0, Math.min(1, x)));
  return `cubic-bezier(${within(x1)}, ${round(y1)}, ${within(x2)}, ${round(y2)})`;
}

/** Points as CSS writes them, in order of their x. */
export function formatPoints(points: readonly (readonly [number, number])[]): string {
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  return `linear(${sorted.map(([x, y]) => `${round(y)} ${round(x * 100)}%`).join(", ")})`;
}

/** One point moved, never past its neighbours; the first and last keep their x. */
export function movePoint(
  points: readonly (readonly [number, number])[],
  at: number,
  x: number,
  y: number,
): (readonly [number, number])[] {
  const low = points[at - 1]?.[0] ?? 0;
  const high = points[at + 1]?.[0] ?? 1;
  const isEnd = at === 0 || at === points.length - 1;
  const moved: [number, number] = [
    isEnd ? points[at]![0] : Math.max(low + 0.005, Math.min(high - 0.005, x)),
    y,
  ];
  return points.map((point, k) => (k === at ? moved : point));
}

/** A curve as points at equal steps, to be shaped by hand. */
export function samplePoints(
  evaluate: (ratio: number) => number,
  count: number,
): (readonly [number, number])[] {
  return Array.from({ length: count }, (_, k): [number, number] => [
    round(k / (count - 1)),
    round(evaluate(k / (count - 1))),
  ]);
}

/** Reads what was pasted as a CSS easing function: "ease-in", "transition: all 1s cubic-bezier(…)" and the like give the function in it. */
export function readPasted(
  text: string,
): { readonly ok: true; readonly css: string } | { readonly ok: false; readonly reason: string } {
  const found =
    /(?:cubic-bezier|linear|steps)\([^)]*\)|\b(?:linear|ease(?:-in-out|-in|-out)?|step-start|step-end)\b/i.exec(
      text,
    );
  const css = (found?.[0] ?? text).trim();
  const parsed = parseEasing(css);
  return parsed.ok ? { ok: true, css } : { ok: false, reason: parsed.detail };
}
