import type { SweepPoint } from "#core";
import type { SweptChoice } from "../../document/studySettings";
import type { ChartLine } from "../../ui/LineChart";

/** Returns the performances of all kinds. */
export const sumOf = ({ performed }: SweepPoint) =>
  performed.direct + performed.buffer + performed.coyote + performed.both;

/**
 * Returns a sweep as lines over its number. Counts are of all runs; with repetitions, of one repetition of
 * all takes, so that more repetitions do not raise the lines.
 */
export function linesOf(points: readonly SweepPoint[], plays: number): ChartLine[] {
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
    Math.round((count(point) * 100) / plays) / 100;
  const all = [
    line("performed", "moss", [], perRun(sumOf)),
    line(
      "by buffer",
      "fern",
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
  return all.filter(({ label, points }) => label === "performed" || points.some(({ y }) => y > 0));
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
