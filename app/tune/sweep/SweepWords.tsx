import type { SweptChoice } from "../../document/studySettings";
import { countWords, lossNameWords, medianDelayOf, type SweepPoint } from "#core";
import { holdWords } from "../../ui/holdWords";
import { formatLimits } from "../model/sweepLimits";
import { sumOf } from "../model/sweepLines";
import { formatSwept } from "../model/sweptNumbers";

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
  choice,
  rateHz,
}: {
  point: SweepPoint;
  choice: SweptChoice;
  rateHz: number;
}) {
  if (point.runs === 0)
    return <p className="text-foxglove">At {formatSwept(point.value, choice, rateHz)} the kit has faults.</p>;
  const { judged, failed } = point;
  const medianDelay = medianDelayOf(point);
  const lost = Object.entries(point.lost).map(([why, n]) => `${n} ${lossNameWords(why)}`);
  return (
    <p className="text-sm" data-testid="sweep-point">
      <b>{formatSwept(point.value, choice, rateHz)}</b>: {sumOf(point)} performed ({point.performed.direct}{" "}
      directly, {point.performed.buffer} by buffer, {point.performed.coyote} by coyote, {point.performed.both}{" "}
      by both), {countWords(point.lostPresses, "press", "presses")} lost
      {lost.length > 0 ? ` (requests: ${lost.join(", ")})` : ""}, {point.saved} saved, {point.unwanted}{" "}
      unwanted, {point.gone} gone
      {judged.length > 0 && `, ${holdWords(judged.length - failed.length, judged.length)} in every run`}
      {medianDelay !== undefined && `, median delay ${medianDelay}f`}; n = {point.runs}{" "}
      {point.runs === 1 ? "run" : "runs"}.
    </p>
  );
}
