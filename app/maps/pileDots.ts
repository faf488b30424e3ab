import { DOT_RADIUS, type MapDot } from "./Dots";

/** The maximum number of dots drawn; the counts beside a map include all. */
export const MAX_DOTS = 600;

/** The area of a map in which its dots lie: rows of `pitchPx` from `top` down. In units of the map. */
export interface DotArea {
  readonly top: number;
  readonly pitchPx: number;
  readonly rows: number;
}

/** The distance at which two dots touch, with their strokes. */
const APART = 2 * DOT_RADIUS + 1;

/**
 * Gives each dot the first row in which it covers no other, so that presses at one place pile up; those that no row has space for
 * go through the rows in turn. Dots after the first `MAX_DOTS` are left out.
 */
export function pileDots(dots: readonly Omit<MapDot, "y">[], { top, pitchPx, rows }: DotArea): MapDot[] {
  // By row, the place of the dot in each stretch of the map: no two that do not touch fit into one.
  const placed = Array.from({ length: rows }, () => new Map<number, number>());
  const covers = (row: number, x: number) => {
    const at = Math.floor(x / APART);
    return [at - 1, at, at + 1].some(
      stretch => Math.abs((placed[row]!.get(stretch) ?? Infinity) - x) < APART,
    );
  };
  let crowded = 0;
  return dots.slice(0, MAX_DOTS).map(dot => {
    let row = 0;
    while (row < rows && covers(row, dot.x)) row++;
    if (row === rows) row = crowded++ % rows;
    else placed[row]!.set(Math.floor(dot.x / APART), dot.x);
    return { ...dot, y: top + row * pitchPx };
  });
}
