import type { Evaluated } from "../judging/judge";

/** The look of a dot on a map: whole, hollow (saved), missed (hollow in foxglove), lost (a broken ring). */
export type DotLook = "whole" | "saved" | "missed" | "lost";

/** A dot of a map at its time, before it has a row. */
export interface PlacedDot {
  readonly x: number;
  readonly look: DotLook;
  /** Its source: choosing the dot moves the tape there, and the event of `note` can become a check. */
  readonly place?: { readonly of: Evaluated; readonly frame: number; readonly note?: number };
}

export interface MapDot extends PlacedDot {
  readonly y: number;
  /** Whether it is part of a count in place of being drawn. */
  readonly isCounted?: boolean;
}

/** The number of dots at and around a place for which no row has space. */
export interface DotCount {
  readonly x: number;
  readonly y: number;
  readonly count: number;
}

/** The dots of a map in their rows. */
export interface Piles {
  readonly dots: readonly MapDot[];
  readonly counts: readonly DotCount[];
}

export const DOT_RADIUS = 4;

/** The maximum number of dots that can be chosen; counts include all. */
export const MAX_DOTS = 600;

/** The area of a map in which its dots lie: rows of `pitchPx` from `top` down. In units of the map. */
export interface DotArea {
  readonly top: number;
  readonly pitchPx: number;
  readonly rows: number;
}

/** The distance at which two dots touch, with their strokes. */
const APART = 2 * DOT_RADIUS + 1;

/** The distance at which two counts touch. */
const COUNTS_APART = 30;

/** Gives each dot the first of some rows in which it covers no other; undefined for one that no row has space for. */
function findRows(dots: readonly PlacedDot[], rows: number): readonly (number | undefined)[] {
  // By row, the place of the dot in each stretch of the map: no two that do not touch fit into one.
  const placed = Array.from({ length: rows }, () => new Map<number, number>());
  const covers = (row: number, x: number) => {
    const at = Math.floor(x / APART);
    return [at - 1, at, at + 1].some(
      stretch => Math.abs((placed[row]!.get(stretch) ?? Infinity) - x) < APART,
    );
  };
  return dots.map(({ x }) => {
    let row = 0;
    while (row < rows && covers(row, x)) row++;
    if (row === rows) return undefined;
    placed[row]!.set(Math.floor(x / APART), x);
    return row;
  });
}

/** Joins places near each other to counts that do not touch, each in the middle of its places or next to the count before it. */
function joinCounts(xs: readonly number[], y: number): readonly DotCount[] {
  const joined: { from: number; to: number; count: number }[] = [];
  for (const x of xs.toSorted((a, b) => a - b)) {
    const last = joined.at(-1);
    if (!last || x - last.from >= COUNTS_APART) joined.push({ from: x, to: x, count: 1 });
    else {
      last.to = x;
      last.count++;
    }
  }
  let least = -Infinity;
  return joined.map(({ from, to, count }): DotCount => {
    const x = Math.max(least, (from + to) / 2);
    least = x + COUNTS_APART;
    return { x, y, count };
  });
}

/**
 * Gives each dot the first row in which it covers no other, so that presses at one place pile up. If the rows have no space for all,
 * the last one has the counts of those that are not drawn in place of dots.
 */
export function pileDots(dots: readonly PlacedDot[], { top, pitchPx, rows }: DotArea): Piles {
  const first = findRows(dots.slice(0, MAX_DOTS), rows);
  const isFull = dots.length > MAX_DOTS || first.includes(undefined);
  const found = isFull ? findRows(dots.slice(0, MAX_DOTS), rows - 1) : first;
  const countY = top + (rows - 1) * pitchPx;
  const piled = dots.slice(0, MAX_DOTS).map((dot, k): MapDot => {
    const row = found[k];
    return row === undefined ? { ...dot, y: countY, isCounted: true } : { ...dot, y: top + row * pitchPx };
  });
  const counted = dots.filter((_dot, k) => found[k] === undefined).map(({ x }) => x);
  return { dots: piled, counts: joinCounts(counted, countY) };
}
