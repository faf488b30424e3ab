import { chooseGoal, parseFrames, type GoalCell, type GoalPlace, type Kit } from "#core";
import type { GoalAsked, SweptChoice } from "../../document/studySettings";
import { presentOf } from "./sweptNumbers";

/** The cells of a goal as they are drawn: a row for each value of the second number, or one row. */
export interface GoalFieldModel {
  readonly columns: readonly number[];
  readonly rows: readonly (number | undefined)[];
  /** Returns the cell of a row and a column; undefined if it is not computed yet. */
  readonly cellAt: (row: number | undefined, value: number) => GoalCell | undefined;
  /** The place that meets the goal best; undefined if none does. */
  readonly best: GoalPlace | undefined;
  /** The place that is met by the most plays, of several the one with the smallest numbers; undefined without cells. */
  readonly nearest: GoalPlace | undefined;
}

/** Returns a value in frames of the kit, so that numbers in frames and in ms can be added; others as they are. */
function framesOf(kit: Kit, { swept }: SweptChoice, value: number): number {
  if (swept.kind !== "length") return value;
  return parseFrames(`${value}${swept.unit}`, kit.rate, "atLeast") ?? value;
}

const shareOf = ({ meeting, plays }: GoalCell) => meeting / plays;

/** Lays the answers of a goal out as a field. `answers` are the cells of each row, in the order of the rows. */
export function layoutGoal(
  kit: Kit,
  asked: GoalAsked,
  answers: readonly (readonly GoalCell[] | undefined)[],
  playPercent: number,
): GoalFieldModel {
  const rows: readonly (number | undefined)[] = asked.two ? asked.rows : [undefined];
  const places = rows.flatMap((row, r) => (answers[r] ?? []).map((cell): GoalPlace => ({ row, cell })));
  const byKey = new Map(places.map(({ row, cell }) => [`${row} ${cell.value}`, cell]));
  const sizeOf = ({ row, cell }: GoalPlace) =>
    framesOf(kit, asked.one, cell.value) + (asked.two ? framesOf(kit, asked.two, row!) : 0);
  return {
    columns: [...new Set(places.map(({ cell }) => cell.value))].sort((a, b) => a - b),
    rows,
    cellAt: (row, value) => byKey.get(`${row} ${value}`),
    best: chooseGoal(places, playPercent / 100, sizeOf),
    nearest: places
      .filter(({ cell }) => cell.plays > 0)
      .sort((a, b) => shareOf(b.cell) - shareOf(a.cell) || sizeOf(a) - sizeOf(b))[0],
  };
}

/** Returns the neighbours of a place with one number one step smaller, that were computed. */
export function listSmaller(
  { columns, rows, cellAt }: GoalFieldModel,
  { row, cell }: GoalPlace,
): { readonly number: "one" | "two"; readonly place: GoalPlace }[] {
  const left = columns[columns.indexOf(cell.value) - 1];
  const above = rows[rows.indexOf(row) - 1];
  const oneLess = left === undefined ? undefined : cellAt(row, left);
  const twoLess = above === undefined ? undefined : cellAt(above, cell.value);
  return [
    ...(oneLess ? [{ number: "one" as const, place: { row, cell: oneLess } }] : []),
    ...(twoLess ? [{ number: "two" as const, place: { row: above, cell: twoLess } }] : []),
  ];
}

/** Returns whether a place has the present values of the kit. */
export function isPresent(kit: Kit, asked: GoalAsked, row: number | undefined, value: number): boolean {
  return presentOf(kit, asked.one) === value && (!asked.two || presentOf(kit, asked.two) === row);
}
