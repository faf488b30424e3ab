import { createLaneReader, landingFrame, ownValue, readValue, type Program, type Take } from "#core";

/** Returns the position in a take at which the press of a control begins that lands on a frame; undefined if none does. */
export function findPressX(program: Program, take: Take, control: number, frame: number): number | undefined {
  const known = program.controls[control]!;
  const reader = createLaneReader();
  for (const [x, value] of ownValue(take.lanes, known.id) ?? []) {
    const landed = readValue(reader, known, landingFrame(x, program.rateHz, take.rate), value);
    if (landed === frame && reader.isDown) return x;
  }
  return undefined;
}

/** Returns whether the press of a control on a frame is marked as one that the player did not mean. */
export function isMarkedUnmeant(program: Program, take: Take, control: number, frame: number): boolean {
  const x = findPressX(program, take, control, frame);
  return x !== undefined && (ownValue(take.unmeant, program.controls[control]!.id)?.includes(x) ?? false);
}

/** Marks a press as one that the player did not mean, or as meant again. Returns the same take if there is no such press. */
export function toggleUnmeant(program: Program, take: Take, control: number, frame: number): Take {
  const x = findPressX(program, take, control, frame);
  if (x === undefined) return take;
  const { id } = program.controls[control]!;
  const marked = ownValue(take.unmeant, id) ?? [];
  const next = marked.includes(x)
    ? marked.filter(other => other !== x)
    : [...marked, x].sort((a, b) => a - b);
  const others = Object.entries(take.unmeant ?? {}).filter(([other]) => other !== id);
  const unmeant = Object.fromEntries(next.length > 0 ? [...others, [id, next]] : others);
  const { unmeant: _before, ...bare } = take;
  return Object.keys(unmeant).length > 0 ? { ...bare, unmeant } : bare;
}
