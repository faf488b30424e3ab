import { MAX_SHIFT_FRAMES, type Miss, type Room } from "#core";

const OF_OPPOSITE = "it counted as its opposite was let go";

/** Formats a side of a room: "2f earlier", "30f or more later", "4f later (then another press)". */
function sideWords(frames: number, direction: "earlier" | "later", isBounded: boolean): string {
  if (isBounded) return `${frames}f ${direction} (then another press)`;
  return frames >= MAX_SHIFT_FRAMES ? `${frames}f or more ${direction}` : `${frames}f ${direction}`;
}

/** Formats how far a used press could have shifted. */
export function formatRoom({ early, late, isEarlyBounded, isLateBounded, isOfOpposite }: Room): string {
  if (isOfOpposite) return OF_OPPOSITE;
  return `${sideWords(early, "earlier", isEarlyBounded)} and ${sideWords(late, "later", isLateBounded)} would do`;
}

/** Formats the shift that saves a press a move lost. `nameOf`: the name of a move by its index. */
export function formatMiss(
  { by, saves, move, isOfOpposite }: Miss,
  nameOf: (move: number) => string,
): string {
  if (isOfOpposite) return OF_OPPOSITE;
  if (by === undefined) return `no shift up to ${MAX_SHIFT_FRAMES}f saves it`;
  const other = saves === undefined || saves === move ? "" : `, as ${nameOf(saves)}`;
  return `${Math.abs(by)}f ${by < 0 ? "earlier" : "later"} would do${other}`;
}
