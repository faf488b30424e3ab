import type { SweptChoice } from "../../document/studySettings";
import { countWords, findEdges, lossNameWords, type SweepPoint } from "#core";
import { holdWords } from "../../ui/holdWords";
import { sumOf } from "../model/sweepLines";
import { formatSwept } from "../model/sweptNumbers";

/** The limits of useful values, in words. */
export function EdgeWords({
  points,
  present,
  choice,
  rateHz,
  isBroken,
}: {
  points: readonly SweepPoint[];
  present: number;
  choice: SweptChoice;
  rateHz: number;
  isBroken: boolean;
}) {
  const { nothingLostFrom, nothingUnwantedTo } = findEdges(points, present);
  const last = points.at(-1);
  const isClean = ({ lostPresses, gone }: SweepPoint) => lostPresses === 0 && gone === 0;
  // A saved press can take something from a later one, so the limit may not hold for every value above it.
  const isUp =
    nothingLostFrom !== undefined &&
    points.every(point => point.value < nothingLostFrom || point.runs === 0 || isClean(point));
  const format = (value: number) => formatSwept(value, choice, rateHz);
  return (
    <p data-testid="sweep-edges">
      {nothingLostFrom === undefined
        ? "At every value swept something wanted is lost or gone. "
        : isUp
          ? `From ${format(nothingLostFrom)} up, nothing wanted is lost. `
          : `At ${format(nothingLostFrom)} nothing wanted is lost, but something is at values above. `}
      {nothingUnwantedTo === undefined
        ? "The present value was not swept."
        : nothingUnwantedTo === last?.value
          ? `Up to ${format(nothingUnwantedTo)}, where the sweep ends, there is nothing unwanted.`
          : `Up to ${format(nothingUnwantedTo)} there is nothing unwanted.`}
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
  const lost = Object.entries(point.lost).map(([why, n]) => `${n} ${lossNameWords(why)}`);
  return (
    <p className="text-sm" data-testid="sweep-point">
      <b>{formatSwept(point.value, choice, rateHz)}</b>: {sumOf(point)} performed ({point.performed.direct}{" "}
      directly, {point.performed.buffer} by buffer, {point.performed.coyote} by coyote, {point.performed.both}{" "}
      by both), {countWords(point.lostPresses, "press", "presses")} lost
      {lost.length > 0 ? ` (requests: ${lost.join(", ")})` : ""}, {point.saved} saved, {point.unwanted}{" "}
      unwanted, {point.gone} gone
      {point.checks > 0 && `, ${holdWords(point.checks - point.failing, point.checks)} in every run`}
      {point.medianDelay !== undefined && `, median delay ${point.medianDelay}f`}; n = {point.runs}{" "}
      {point.runs === 1 ? "run" : "runs"}.
    </p>
  );
}
