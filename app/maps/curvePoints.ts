import { parseEasing, type Easing } from "#core";

/** The editable form of a curve: two handles of a bezier, points joined by straight lines, or neither. */
export type EditableCurve =
  | { readonly kind: "bezier"; readonly handles: readonly [x1: number, y1: number, x2: number, y2: number] }
  | { readonly kind: "points"; readonly points: readonly (readonly [x: number, y: number])[] }
  | { readonly kind: "fixed" };

const round = (value: number) => Math.round(value * 1000) / 1000;

/** The bezier of the straight line, as a starting point. */
const STRAIGHT = [0.333, 0.333, 0.667, 0.667] as const;

/**
 * Returns the editable form of an easing function. Source of the named curves' handles: CSS Easing Level 2.
 */
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

/** Formats a bezier for CSS. Handles stay within the width; they may go above or below. */
export function formatBezier([x1, y1, x2, y2]: readonly [number, number, number, number]): string {
  const within = (x: number) => round(Math.max(0, Math.min(1, x)));
  return `cubic-bezier(${within(x1)}, ${round(y1)}, ${within(x2)}, ${round(y2)})`;
}

/** Formats points for CSS, ordered by x. */
export function formatPoints(points: readonly (readonly [number, number])[]): string {
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  return `linear(${sorted.map(([x, y]) => `${round(y)} ${round(x * 100)}%`).join(", ")})`;
}

/** Returns points with one moved, never past its neighbours; the first and last keep their x. */
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

/** Samples a curve as points at equal steps, for editing. */
export function samplePoints(
  evaluate: (ratio: number) => number,
  count: number,
): (readonly [number, number])[] {
  return Array.from({ length: count }, (_, k): [number, number] => [
    round(k / (count - 1)),
    round(evaluate(k / (count - 1))),
  ]);
}

/** Finds a CSS easing function in pasted text such as "ease-in" or "transition: all 1s cubic-bezier(…)". */
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
