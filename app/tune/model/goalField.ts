import { chooseGoal, parseFrames, type GoalCell, type GoalPlace, type Kit } from "#core";
import type { GoalAsked, SweptChoice } from "../../document/studySettings";
import { presentOf } from "./sweptNumbers";

/** The cell of one group of takes. */
export interface GroupCell {
  readonly name: string;
  readonly cell: GoalCell;
}

/** The cells of a goal as they are drawn: a row for each value of the second number, or one row. */
export interface GoalFieldModel {
  readonly columns: readonly number[];
  readonly rows: readonly (number | undefined)[];
  /**
   * Returns the cell of a row and a column; undefined if it is not computed yet. With groups of takes it is that of the group
   * that meets the goal least, with the unwanted events a play of all.
   */
  readonly cellAt: (row: number | undefined, value: number) => GoalCell | undefined;
  /** Returns the cell of each group of takes, in the order of their names; none without groups. */
  readonly groupsAt: (row: number | undefined, value: number) => readonly GroupCell[];
  /** The place that meets the goal best; undefined if none does. */
  readonly best: GoalPlace | undefined;
  /**
   * The place that is met by the most plays, of several the one that keeps the most presses, then the one with the smallest
   * numbers; undefined without cells.
   */
  readonly nearest: GoalPlace | undefined;
}

/** Returns a value in frames of the kit, so that numbers in frames and in ms can be added; others as they are. */
function framesOf(kit: Kit, { swept }: SweptChoice, value: number): number {
  if (swept.kind !== "length") return value;
  return parseFrames(`${value}${swept.unit}`, kit.rate, "atLeast") ?? value;
}

const shareOf = ({ meeting, plays }: GoalCell) => (plays === 0 ? 0 : meeting / plays);
const keptShareOf = ({ kept, meant }: GoalCell) => (meant === 0 ? 0 : kept / meant);

/** Returns the cell of several groups: each must meet the goal, so it is that of the group with the smallest share. */
function worstOf(cells: readonly GoalCell[]): GoalCell {
  // Groups without a meant press have nothing to meet.
  const played = cells.filter(({ plays }) => plays > 0);
  const worst = played.reduce<GoalCell>(
    (least, cell) => (shareOf(cell) < shareOf(least) ? cell : least),
    played[0] ?? cells[0]!,
  );
  const sum = (read: (cell: GoalCell) => number) => cells.reduce((total, cell) => total + read(cell), 0);
  const unwantedPerPlay =
    sum(({ unwanted }) => unwanted) /
    Math.max(
      1,
      sum(({ plays }) => plays),
    );
  return { ...worst, unwanted: unwantedPerPlay * worst.plays };
}

/**
 * Lays the answers of a goal out as a field. `answers` are the cells of each row, in the order of the rows, for each group of
 * takes in turn. A place has a cell once all groups have one.
 */
export function layoutGoal(
  kit: Kit,
  asked: GoalAsked,
  answers: readonly (readonly GoalCell[] | undefined)[],
  playPercent: number,
): GoalFieldModel {
  const rows: readonly (number | undefined)[] = asked.two ? asked.rows : [undefined];
  const groups = asked.groups.length > 0 ? asked.groups : [""];
  const byGroup = groups.map(
    (_, g) =>
      new Map(
        rows.flatMap((row, r) =>
          (answers[g * rows.length + r] ?? []).map(cell => [`${row} ${cell.value}`, cell] as const),
        ),
      ),
  );
  const groupCells = (row: number | undefined, value: number) =>
    byGroup.flatMap((cells, g) => {
      const cell = cells.get(`${row} ${value}`);
      return cell ? [{ name: groups[g]!, cell }] : [];
    });
  const places = rows.flatMap((row, r) =>
    (answers[r] ?? []).flatMap(({ value }): GoalPlace[] => {
      const cells = groupCells(row, value).map(({ cell }) => cell);
      return cells.length < groups.length ? [] : [{ row, cell: worstOf(cells) }];
    }),
  );
  const byKey = new Map(places.map(({ row, cell }) => [`${row} ${cell.value}`, cell]));
  const sizeOf = ({ row, cell }: GoalPlace) =>
    framesOf(kit, asked.one, cell.value) + (asked.two ? framesOf(kit, asked.two, row!) : 0);
  return {
    columns: [...new Set(places.map(({ cell }) => cell.value))].sort((a, b) => a - b),
    rows,
    cellAt: (row, value) => byKey.get(`${row} ${value}`),
    groupsAt: (row, value) => (asked.groups.length > 0 ? groupCells(row, value) : []),
    best: chooseGoal(places, playPercent / 100, sizeOf),
    nearest: places
      .filter(({ cell }) => cell.plays > 0)
      .sort(
        (a, b) =>
          shareOf(b.cell) - shareOf(a.cell) ||
          keptShareOf(b.cell) - keptShareOf(a.cell) ||
          sizeOf(a) - sizeOf(b),
      )[0],
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
