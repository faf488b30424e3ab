import { gateName, parseFrames, type Kit, type Move } from "#core";
import type { Advantage } from "#stage";

export const PARTS = ["startup", "active", "recovery"] as const;
export type Part = (typeof PARTS)[number];
/** A column that rows can be sorted by. */
export type Column = "name" | Part | "whole" | "onHit" | "onGuard" | "onMiss";

/** A move as a row of the table. Lengths in frames. */
export interface MoveRow {
  readonly index: number;
  readonly move: Move;
  readonly frames: Readonly<Record<Part, number>> | undefined;
  readonly whole: number;
  readonly opens: string;
  readonly advantage: Advantage | undefined;
}

/** Returns the row of a move. */
export function rowOf(kit: Kit, move: Move, index: number, advantage: Advantage | undefined): MoveRow {
  const count = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const { frames } = move;
  const parts = frames && {
    startup: count(frames.startup),
    active: count(frames.active),
    recovery: count(frames.recovery),
  };
  const names = (move.opens ?? []).map(({ gate, from, to }) => `${gateName(kit, gate)} ${from} to ${to}`);
  const whole = parts ? parts.startup + parts.active + parts.recovery : 0;
  return { index, move, frames: parts, whole, opens: names.join("; "), advantage };
}

/** Returns the sort value of a row; rows without one come last. */
function valueOf(row: MoveRow, column: Column): number | string | undefined {
  if (column === "name") return row.move.name.toLowerCase();
  if (column === "whole") return row.whole;
  if (column === "onHit" || column === "onGuard" || column === "onMiss") return row.advantage?.[column];
  return row.frames?.[column];
}

function compare(a: MoveRow, b: MoveRow, column: Column): number {
  const [x, y] = [valueOf(a, column), valueOf(b, column)];
  if (x === undefined || y === undefined) return Number(x === undefined) - Number(y === undefined);
  return typeof x === "string" ? x.localeCompare(String(y)) : x - Number(y);
}

/** The order of a table: by a column, ascending or descending. */
export interface MoveSort {
  readonly by: Column;
  readonly isDown: boolean;
}

/** Returns rows in an order; rows without a value in the column come last, equal ones in the kit's order. */
export function sortRows(rows: readonly MoveRow[], sort: MoveSort | undefined): readonly MoveRow[] {
  if (!sort) return rows;
  const way = sort.isDown ? -1 : 1;
  return [...rows].sort((a, b) => way * compare(a, b, sort.by) || a.index - b.index);
}
