import { evaluateEasing, parseEasing } from "#core";

/** The size of the curve's square, and the margin around it for labels and for handles outside it. */
export const SIZE = 190;
export const PAD = 26;
export const FULL = SIZE + 2 * PAD;
const SAMPLES = 64;

/** Converts a ratio, 0 to 1, to the drawing. */
export const toX = (ratio: number) => PAD + ratio * SIZE;
export const toY = (value: number) => PAD + (1 - value) * SIZE;

/** Converts a pointer's position over the drawing to a ratio and a value; both may lie outside 0 to 1. */
export function pointAt(
  { clientX, clientY }: { readonly clientX: number; readonly clientY: number },
  box: DOMRect,
): readonly [number, number] {
  const x = ((clientX - box.left) / box.width) * FULL;
  const y = ((clientY - box.top) / box.height) * FULL;
  return [(x - PAD) / SIZE, 1 - (y - PAD) / SIZE];
}

/** Returns the path of a CSS easing function; empty if it does not parse. */
export function curvePath(css: string): string {
  const parsed = parseEasing(css);
  if (!parsed.ok) return "";
  return Array.from({ length: SAMPLES + 1 }, (_, k) => {
    const at = k / SAMPLES;
    return `${k === 0 ? "M" : "L"}${toX(at).toFixed(1)} ${toY(evaluateEasing(parsed.value, at)).toFixed(1)}`;
  }).join("");
}
