import { findEdges, mergePoints, type SweepPoint } from "#core";
import type { DrawnSweep, SweptChoice } from "../../document/studySettings";
import type { ChartLine } from "../../ui/LineChart";

/** Returns the performances of all kinds. */
export const sumOf = ({ performed }: SweepPoint) =>
  performed.direct + performed.buffer + performed.coyote + performed.both;

/**
 * Returns whether the moves that a sweep counts have any request; if not, a sweep that shows prompts is about them alone.
 */
export function isAnyRequested(points: readonly SweepPoint[]): boolean {
  return points.some(point => sumOf(point) > 0 || Object.keys(point.lost).length > 0) || !isAnyShown(points);
}

/** Returns whether any prompt that a sweep counts was shown to its end. */
export function isAnyShown(points: readonly SweepPoint[]): boolean {
  return points.some(({ answered, unanswered }) => answered + unanswered > 0);
}

/**
 * Returns a sweep as lines over its number. Counts are of all runs; with repetitions, of one repetition of
 * all takes, so that more repetitions do not raise the lines.
 */
export function linesOf(points: readonly SweepPoint[]): ChartLine[] {
  const line = (
    label: string,
    look: ChartLine["look"],
    dash: readonly number[],
    read: (point: SweepPoint) => number | undefined,
  ): ChartLine => ({
    label,
    look,
    dash,
    points: points.flatMap(point => {
      const y = read(point);
      return y === undefined || point.runs === 0 ? [] : [{ x: point.value, y }];
    }),
  });
  const perRun = (count: (point: SweepPoint) => number) => (point: SweepPoint) =>
    Math.round((count(point) * 100) / Math.max(1, point.repetitions)) / 100;
  const all = [
    line("performed", "moss", [], perRun(sumOf)),
    line(
      "by buffer",
      "sprout",
      [6, 3],
      perRun(({ performed }) => performed.buffer + performed.both),
    ),
    line(
      "by coyote",
      "bark",
      [6, 3],
      perRun(({ performed }) => performed.coyote + performed.both),
    ),
    line(
      "prompts answered",
      "bark",
      [],
      perRun(({ answered }) => answered),
    ),
    line(
      "presses lost",
      "foxglove",
      [2, 3],
      perRun(({ lostPresses }) => lostPresses),
    ),
    line(
      "unwanted or gone",
      "dew",
      [8, 3, 2, 3],
      perRun(({ unwanted, gone }) => unwanted + gone),
    ),
    line(
      "checks that fail",
      "soft",
      [1, 4],
      perRun(({ asked, holds }) => asked - holds),
    ),
  ];
  const isNamed = isAnyRequested(points) ? "performed" : "prompts answered";
  return all.filter(({ label, points: own }) => label === isNamed || own.some(({ y }) => y > 0));
}

/**
 * Returns the rows of a field with those left out (undefined) that have been played less often than was asked: while a field runs,
 * their cells look better than those of others, and shares of them differ without a reason.
 */
export function keepWholeRows(
  rows: readonly (readonly SweepPoint[] | undefined)[],
  plays: number,
): readonly (readonly SweepPoint[] | undefined)[] {
  const isWhole = (row: readonly SweepPoint[]) =>
    row.every(({ runs, repetitions }) => runs === 0 || repetitions >= plays);
  return rows.map(row => (row && isWhole(row) ? row : undefined));
}

/** Returns the point nearest to a value among those that could be run; undefined if none could. */
export function nearestPoint(points: readonly SweepPoint[], value: number): SweepPoint | undefined {
  return points
    .filter(({ runs }) => runs > 0)
    .reduce<SweepPoint | undefined>(
      (best, point) => (best && Math.abs(best.value - value) <= Math.abs(point.value - value) ? best : point),
      undefined,
    );
}

/** Formats the label of a sweep's axis: the number with its unit. */
export function axisWords({ name, swept }: SweptChoice, rateHz: number): string {
  if (swept.kind === "group") return `${name}, %`;
  if (swept.kind === "number") return name;
  const frameMs = Math.round(10_000 / rateHz) / 10;
  return swept.unit === "f" ? `${name}, frames (1f is ${frameMs} ms)` : `${name}, ms`;
}

/** The answers of one group of takes; the name is empty for all takes together. */
export interface SweptGroup {
  readonly name: string;
  /** The points of each question, as they were asked: rows of a field, or parts of one line. */
  readonly answers: readonly (readonly SweepPoint[] | undefined)[];
  /** For one number its points by value, of all parts together; for two those of all rows. */
  readonly points: readonly SweepPoint[];
}

/** Returns the answers of a sweep by group, without groups that have none yet. */
export function listSweptGroups(
  answers: readonly (readonly SweepPoint[] | undefined)[],
  { groups, two }: Pick<DrawnSweep, "groups" | "two">,
): readonly SweptGroup[] {
  const names = groups.length > 0 ? groups : [""];
  const parts = answers.length / names.length;
  return names.flatMap((name, g) => {
    const own = answers.slice(g * parts, (g + 1) * parts);
    const all = own.flatMap(list => list ?? []);
    const points = two ? all : mergePoints(all);
    return points.length === 0 ? [] : [{ name, answers: own, points }];
  });
}

/** Returns how many runs a value has, all groups together: where values differ, the most. */
export function runsOfValue(groups: readonly SweptGroup[]): number {
  return groups.reduce((sum, { points }) => sum + Math.max(...points.map(({ runs }) => runs)), 0);
}

const formatList = (names: readonly string[]) => new Intl.ListFormat("en-GB").format(names);

/**
 * Returns in words from which value on nothing wanted is lost, for each group, the smallest first: the figure in which groups
 * differ. `format` formats a value of the number.
 */
export function formatGroupLimits(
  groups: readonly SweptGroup[],
  present: number,
  format: (value: number) => string,
): string {
  const limits = groups.map(({ name, points }) => ({
    name,
    from: findEdges(points, present).nothingLostFrom,
  }));
  const some = limits.flatMap(({ name, from }) => (from === undefined ? [] : [{ name, from }]));
  const never = limits.flatMap(({ name, from }) => (from === undefined ? [name] : []));
  const froms = [...new Set(some.map(({ from }) => from))].sort((a, b) => a - b);
  const words = froms.map(from => {
    const names = some.filter(group => group.from === from).map(({ name }) => name);
    return `${format(from)} for ${formatList(names)}`;
  });
  return [
    ...(words.length > 0 ? [`Nothing wanted is lost from ${words.join(", from ")}.`] : []),
    ...(never.length > 0 ? [`At every value swept something is lost of ${formatList(never)}.`] : []),
  ].join(" ");
}

/** Returns the highest point of the lines of several groups, so that their charts have one scale. */
export function highestOf(groups: readonly SweptGroup[]): number {
  const ys = groups.flatMap(({ points }) => linesOf(points).flatMap(line => line.points.map(({ y }) => y)));
  return Math.max(1, ...ys);
}
