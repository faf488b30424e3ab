import { countWords, lossNameWords, medianDelayOf, timesWords, type SweepPoint } from "#core";
import { isAnyRequested, isAnyShown, sumOf } from "./sweepLines";

const MEANS = [
  ["direct", "directly"],
  ["buffer", "by buffer"],
  ["coyote", "by coyote"],
  ["both", "by both"],
] as const;

function formatRequests(point: SweepPoint): string[] {
  const { performed, lost } = point;
  const means = MEANS.flatMap(([by, words]) => (performed[by] > 0 ? [`${performed[by]} ${words}`] : []));
  const losses = Object.entries(lost).map(([why, n]) => `${lossNameWords(why)} ${timesWords(n)}`);
  return [
    `${sumOf(point)} performed${means.length > 0 ? ` (${means.join(", ")})` : ""}`,
    `${countWords(point.lostPresses, "press", "presses")} lost${losses.length > 0 ? ` (requests: ${losses.join(", ")})` : ""}`,
  ];
}

/**
 * Formats the results of one value of a sweep, with their n: "2 performed (2 by buffer), 1 press lost, …; n = 4 runs". Moves
 * or prompts that no value of the sweep (`points`) has anything of are left out.
 */
export function formatPoint(point: SweepPoint, points: readonly SweepPoint[]): string {
  const { answered, unanswered, saved, unwanted, gone, judged, failed, runs } = point;
  const medianDelay = medianDelayOf(point);
  const parts = [
    ...(isAnyRequested(points) ? formatRequests(point) : []),
    ...(isAnyShown(points)
      ? [`${answered} of ${countWords(answered + unanswered, "showing")} answered`]
      : []),
    `${saved} saved`,
    `${unwanted} unwanted`,
    `${gone} gone`,
    ...(judged.length > 0
      ? [`${failed.length} of ${countWords(judged.length, "check")} failed in some run`]
      : []),
    ...(medianDelay !== undefined ? [`median delay ${medianDelay}f`] : []),
  ];
  return `${parts.join(", ")}; n = ${countWords(runs, "run")}`;
}
