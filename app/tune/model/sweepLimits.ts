import { countWords, findEdges, type SweepPoint } from "#core";

/** Formats the losses of a value: "1 press is lost and 2 events are gone". */
function formatLosses({ lostPresses, gone }: SweepPoint): string {
  const are = (n: number) => (n === 1 ? "is" : "are");
  return [
    ...(lostPresses > 0 ? [`${countWords(lostPresses, "press", "presses")} ${are(lostPresses)} lost`] : []),
    ...(gone > 0 ? [`${countWords(gone, "event", "events")} ${are(gone)} gone`] : []),
  ].join(" and ");
}

const sumWanted = ({ lostPresses, gone }: SweepPoint) => lostPresses + gone;

/** Formats from which value on nothing wanted is lost, and on how many presses this rests. */
function formatLowest(
  sorted: readonly SweepPoint[],
  from: number | undefined,
  format: (value: number) => string,
): string {
  if (from === undefined) return "At every value swept something wanted is lost or gone.";
  const place = sorted.findIndex(({ value }) => value === from);
  const below = sorted[place - 1];
  const rest = below
    ? `; at ${format(below.value)}, the value below, ${formatLosses(below)}${sumWanted(below) === 1 ? ": this limit rests on it alone" : ""}.`
    : "; no lower value was swept.";
  // A saved press can take something from a later one, so the limit may not hold for every value above it.
  return sorted.slice(place).every(point => sumWanted(point) === 0)
    ? `From ${format(from)} up, nothing wanted is lost${rest}`
    : `At ${format(from)} nothing wanted is lost, but something is at values above${rest}`;
}

/** Formats up to which value nothing unwanted happens, and how much does at the next one. */
function formatHighest(
  sorted: readonly SweepPoint[],
  to: number | undefined,
  format: (value: number) => string,
): string {
  if (to === undefined) return "The present value was not swept.";
  const above = sorted[sorted.findIndex(({ value }) => value === to) + 1];
  return above
    ? `Up to ${format(to)} there is nothing unwanted; at ${format(above.value)} there ${above.unwanted === 1 ? "is one unwanted event: this limit rests on it alone" : `are ${above.unwanted} unwanted events`}.`
    : `Up to ${format(to)}, where the sweep ends, there is nothing unwanted.`;
}

/**
 * Formats the limits of a number's useful values as two sentences, each with the presses or events that decide it. `present`
 * is the number's present value; `format` formats a value. Points of values with faults are left out.
 */
export function formatLimits(
  points: readonly SweepPoint[],
  present: number,
  format: (value: number) => string,
): readonly string[] {
  const { nothingLostFrom, nothingUnwantedTo } = findEdges(points, present);
  const sorted = points.filter(({ runs }) => runs > 0).sort((a, b) => a.value - b.value);
  return [formatLowest(sorted, nothingLostFrom, format), formatHighest(sorted, nothingUnwantedTo, format)];
}
