import { ownValue } from "#core";
import type { Take } from "#core";

type Pair<V extends number> = readonly [number, V];

/** Returns the value of a lane at a position: that of the last pair at or before it. */
export function valueAt<V extends number>(lane: readonly Pair<V>[], x: number, before: V): V {
  return lane.findLast(pair => pair[0] <= x)?.[1] ?? before;
}

/**
 * Returns a lane with one value from `fromX` up to `toX`, and unchanged elsewhere. Pairs outside are kept
 * exactly, including analog ones; redundant pairs at both ends of the range are removed.
 */
export function setStretch<V extends number>(
  lane: readonly Pair<V>[],
  fromX: number,
  toX: number,
  value: V,
  before: V,
): Pair<V>[] {
  const head = lane.filter(pair => pair[0] < fromX);
  const tail = lane.filter(pair => pair[0] > toX);
  const after = valueAt(lane, toX, before);
  const middle: Pair<V>[] = [];
  if ((head.at(-1)?.[1] ?? before) !== value) middle.push([fromX, value]);
  if (after !== value) middle.push([toX, after]);
  return [...head, ...middle, ...tail];
}

/** Paints a press on a control's lane, from a frame up to another (exclusive), in frames of the take. */
export function paintControl(take: Take, control: string, fromX: number, toX: number, isDown: boolean): Take {
  const lane = setStretch<number>(ownValue(take.lanes, control) ?? [], fromX, toX, isDown ? 1 : 0, 0);
  return { ...take, lanes: { ...take.lanes, [control]: lane } };
}

/** Paints a gate open or closed over a range. */
export function paintGate(take: Take, gate: string, fromX: number, toX: number, isOpen: boolean): Take {
  const lane = setStretch<0 | 1>(ownValue(take.gates, gate) ?? [], fromX, toX, isOpen ? 1 : 0, 0);
  return { ...take, gates: { ...take.gates, [gate]: lane } };
}

/** Sets the speed of the game clock over a range, in percent of full speed. */
export function paintSpeed(take: Take, fromX: number, toX: number, percent: number): Take {
  return { ...take, speed: setStretch<number>(take.speed ?? [], fromX, toX, percent, 100) };
}

/** Converts a take to another rate: every position keeps its time in seconds. */
export function convertTake(take: Take, rateHz: number): Take {
  const at = (x: number) => (x * rateHz) / take.rate;
  const move = <V>(lane: readonly (readonly [number, V])[]) => lane.map(([x, v]): [number, V] => [at(x), v]);
  const each = <V>(lanes: Readonly<Record<string, readonly (readonly [number, V])[]>>) =>
    Object.fromEntries(Object.entries(lanes).map(([id, lane]) => [id, move(lane)]));
  const places = (lists: Readonly<Record<string, readonly number[]>>) =>
    Object.fromEntries(Object.entries(lists).map(([id, xs]) => [id, xs.map(at)]));
  return {
    ...take,
    rate: rateHz,
    frames: at(take.frames),
    lanes: each(take.lanes),
    ...(take.gates ? { gates: each(take.gates) } : {}),
    ...(take.speed ? { speed: move(take.speed) } : {}),
    ...(take.gaps ? { gaps: move(take.gaps) } : {}),
    ...(take.unmeant ? { unmeant: places(take.unmeant) } : {}),
    ...(take.did ? { did: places(take.did) } : {}),
  };
}

/** Returns a copy of a take with another id and name. */
export function copyTake(take: Take, id: string, name: string): Take {
  return { ...take, id, name };
}
