import type { SweptChoice } from "../../document/studySettings";
import type { SweepPoint } from "#core";
import { formatLimits } from "../model/sweepLimits";
import { formatPoint } from "../model/sweepPointWords";
import { formatShort, formatSwept } from "../model/sweptNumbers";

/** The beginning of limits that more plays can still change. */
export const SO_FAR = "So far: ";

/** The limits of useful values, in words. */
export function EdgeWords({
  points,
  present,
  choice,
  rateHz,
  count,
  isBroken,
  isWhole,
}: {
  points: readonly SweepPoint[];
  /** The number of values swept. */
  count: number;
  present: number;
  choice: SweptChoice;
  rateHz: number;
  isBroken: boolean;
  /** Whether every value has all of its plays. */
  isWhole: boolean;
}) {
  const limits = formatLimits(points, present, value => formatSwept(value, choice, rateHz));
  if (!isWhole && points.length < count)
    return <p data-testid="sweep-edges">{SO_FAR}not every value has been played.</p>;
  return (
    <p data-testid="sweep-edges">
      {!isWhole && SO_FAR}
      {limits.join(" ")}
      {isBroken && " Values at which the kit has faults were left out."}
    </p>
  );
}

/** The result of a value, in words with its n. */
export function PointWords({
  point,
  points,
  choice,
  rateHz,
}: {
  point: SweepPoint;
  points: readonly SweepPoint[];
  choice: SweptChoice;
  rateHz: number;
}) {
  if (point.runs === 0)
    return <p className="text-foxglove">At {formatSwept(point.value, choice, rateHz)} the kit has faults.</p>;
  return (
    <p className="text-sm" data-testid="sweep-point">
      <b>{formatSwept(point.value, choice, rateHz)}</b>: {formatPoint(point, points)}.
    </p>
  );
}

/** The result of a pair of values, in words with its n. */
export function PairWords({
  one,
  two,
  row,
  point,
  points,
}: {
  one: SweptChoice;
  two: SweptChoice;
  /** The value of the second number; that of the first is the point's. */
  row: number;
  point: SweepPoint;
  /** All points of the field. */
  points: readonly SweepPoint[];
}) {
  return (
    <p className="text-sm" data-testid="sweep-pair">
      <b>
        {one.name} {formatShort(point.value, one)}, {two.name} {formatShort(row, two)}
      </b>
      : {formatPoint(point, points)}.
    </p>
  );
}
