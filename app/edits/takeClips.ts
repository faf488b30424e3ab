import { ownValue } from "#core";
import type { Take } from "#core";
import { clipMarks, pasteMarks, withMarks, type PressMarks } from "./pressMarks";
import { valueAt } from "./takeEdits";

type Pair = readonly [number, number];
type Lanes = Readonly<Record<string, readonly Pair[]>>;

/** A range copied from a take: every lane with its initial value, and the marks of presses; positions relative to the start. */
export interface TakeClip {
  readonly lengthX: number;
  readonly lanes: Lanes;
  readonly gates: Lanes;
  readonly speed: readonly Pair[];
  /** The presses that the player did not mean. */
  readonly unmeant: PressMarks;
}

const FULL_SPEED = 100;

function clipLane(lane: readonly Pair[], fromX: number, toX: number, before: number): Pair[] {
  const inside = lane.filter(([x]) => x > fromX && x < toX).map(([x, value]): Pair => [x - fromX, value]);
  return [[0, valueAt(lane, fromX, before)], ...inside];
}

function clipLanes(lanes: Lanes, fromX: number, toX: number): Lanes {
  return Object.fromEntries(Object.entries(lanes).map(([id, lane]) => [id, clipLane(lane, fromX, toX, 0)]));
}

/** Copies a range, from a position up to another (exclusive), in frames of the take. */
export function copyStretch(take: Take, fromX: number, toX: number): TakeClip {
  return {
    lengthX: toX - fromX,
    lanes: clipLanes(take.lanes, fromX, toX),
    gates: clipLanes(take.gates ?? {}, fromX, toX),
    speed: clipLane(take.speed ?? [], fromX, toX, FULL_SPEED),
    unmeant: clipMarks(take.unmeant, fromX, toX),
  };
}

/** Removes pairs that change nothing. */
function tidy(lane: readonly Pair[], before: number): Pair[] {
  return lane.filter(([, value], i) => value !== (i === 0 ? before : lane[i - 1]![1]));
}

function pasteLane(
  lane: readonly Pair[],
  clip: readonly Pair[],
  atX: number,
  lengthX: number,
  before: number,
): Pair[] {
  const head = lane.filter(([x]) => x < atX);
  const tail = lane.filter(([x]) => x > atX + lengthX);
  const middle = clip.map(([x, value]): Pair => [x + atX, value]);
  return tidy([...head, ...middle, [atX + lengthX, valueAt(lane, atX + lengthX, before)], ...tail], before);
}

function pasteLanes(lanes: Lanes, clip: Lanes, atX: number, lengthX: number): Record<string, Pair[]> {
  const ids = [...new Set([...Object.keys(lanes), ...Object.keys(clip)])];
  return Object.fromEntries(
    ids.map(id => [
      id,
      pasteLane(ownValue(lanes, id) ?? [], ownValue(clip, id) ?? [[0, 0]], atX, lengthX, 0),
    ]),
  );
}

/** Pastes a clip into a take at a position; it replaces what was there, and extends the take if necessary. */
export function pasteClip(take: Take, clip: TakeClip, atX: number): Take {
  const gates = pasteLanes(take.gates ?? {}, clip.gates, atX, clip.lengthX) as NonNullable<Take["gates"]>;
  const speed = pasteLane(take.speed ?? [], clip.speed, atX, clip.lengthX, FULL_SPEED) as NonNullable<
    Take["speed"]
  >;
  const bare = {
    ...take,
    frames: Math.max(take.frames, atX + clip.lengthX),
    lanes: pasteLanes(take.lanes, clip.lanes, atX, clip.lengthX),
  };
  const pasted = {
    ...bare,
    ...(Object.keys(gates).length > 0 ? { gates } : {}),
    ...(speed.length > 0 || take.speed ? { speed } : {}),
  };
  return withMarks(pasted, pasteMarks(take.unmeant, clip.unmeant, atX, clip.lengthX));
}

/** Clears a range: every control up, every gate closed; the speed is unchanged. */
export function wipeStretch(take: Take, fromX: number, toX: number): Take {
  const empty: TakeClip = {
    lengthX: toX - fromX,
    lanes: {},
    gates: {},
    unmeant: {},
    speed: clipLane(take.speed ?? [], fromX, toX, FULL_SPEED),
  };
  return pasteClip(take, empty, fromX);
}

/**
 * Moves a range by a distance, overwriting its destination; its old place is cleared. Never before the start.
 */
export function shiftStretch(take: Take, fromX: number, toX: number, byX: number): Take {
  const clip = copyStretch(take, fromX, toX);
  return pasteClip(wipeStretch(take, fromX, toX), clip, Math.max(0, fromX + byX));
}
