import { ownValue, type Take } from "#core";

/** The places of presses, in frames of the take, by control. */
export type PressMarks = NonNullable<Take["unmeant"]>;

/** Returns a take with these marks of presses that the player did not mean; those at which no press begins are left out. */
export function withMarks(take: Take, marks: PressMarks): Take {
  const kept = Object.entries(marks).flatMap(([id, xs]) => {
    const begins = new Set((ownValue(take.lanes, id) ?? []).flatMap(([x, value]) => (value > 0 ? [x] : [])));
    const own = [...new Set(xs)].filter(x => begins.has(x)).sort((a, b) => a - b);
    return own.length > 0 ? [[id, own] as const] : [];
  });
  const { unmeant: _before, ...bare } = take;
  return kept.length > 0 ? { ...bare, unmeant: Object.fromEntries(kept) } : bare;
}

/** Returns the marks in a range, up to its end (exclusive), relative to its start. */
export function clipMarks(marks: PressMarks | undefined, fromX: number, toX: number): PressMarks {
  return Object.fromEntries(
    Object.entries(marks ?? {}).map(([id, xs]) => [
      id,
      xs.filter(x => x >= fromX && x < toX).map(x => x - fromX),
    ]),
  );
}

/** Returns marks with those of a range replaced by others, relative to its start. */
export function pasteMarks(
  marks: PressMarks | undefined,
  clip: PressMarks,
  atX: number,
  lengthX: number,
): PressMarks {
  const ids = [...new Set([...Object.keys(marks ?? {}), ...Object.keys(clip)])];
  const outside = (x: number) => x < atX || x >= atX + lengthX;
  return Object.fromEntries(
    ids.map(id => [
      id,
      [...(ownValue(marks, id) ?? []).filter(outside), ...(ownValue(clip, id) ?? []).map(x => x + atX)],
    ]),
  );
}

/**
 * Returns a take whose control was painted with its marks: those of presses wiped from `fromX` up to `toX` (exclusive) are of the press
 * that was painted in their place at `filledX`; without one they are dropped. Returns the same take if it has no marks.
 */
export function moveMarks(
  painted: Take,
  control: string,
  fromX: number,
  toX: number,
  filledX: number | undefined,
): Take {
  const own = ownValue(painted.unmeant, control);
  if (!own) return painted;
  const moved = own.flatMap(x => {
    if (x < fromX || x >= toX) return [x];
    return filledX === undefined ? [] : [filledX];
  });
  return withMarks(painted, { ...painted.unmeant, [control]: moved });
}
