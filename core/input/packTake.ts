import type { Lane, Take } from "./takeSchema";

/** A lane as one column, x and value in turn: copied between threads and into storage in no time, whatever its length. */
export interface PackedLane {
  readonly packed: Float64Array;
}

type PackedLanes = Readonly<Record<string, PackedLane>>;

/** A take with its lanes packed. It is only ever moved like this; what reads a take unpacks it first. */
export type PackedTake = Omit<Take, "lanes" | "gates" | "speed"> & {
  readonly lanes: PackedLanes;
  readonly gates?: PackedLanes;
  readonly speed?: PackedLane;
};

/** What a lane was unpacked from, or packed into before: lanes never change, and a long one is moved again and again. */
const packedOf = new WeakMap<object, Float64Array>();

function packLane(lane: Lane): PackedLane {
  const known = packedOf.get(lane);
  if (known) return { packed: known };
  const packed = new Float64Array(lane.length * 2);
  for (let k = 0; k < lane.length; k++) {
    packed[2 * k] = lane[k]![0];
    packed[2 * k + 1] = lane[k]![1];
  }
  packedOf.set(lane, packed);
  return { packed };
}

function mapValues<A, B>(record: Readonly<Record<string, A>>, make: (value: A) => B): Record<string, B> {
  return Object.fromEntries(Object.entries(record).map(([id, value]) => [id, make(value)]));
}

/** Packs a take. `unpackTake` gives it back as it was. */
export function packTake(take: Take): PackedTake {
  const { lanes, gates, speed, ...rest } = take;
  return {
    ...rest,
    lanes: mapValues(lanes, packLane),
    ...(gates ? { gates: mapValues(gates, packLane) } : {}),
    ...(speed ? { speed: packLane(speed) } : {}),
  };
}

/** The buffers of a packed take: handed over with it, they need not be copied, and are gone where it came from. */
export function buffersOf({ lanes, gates = {}, speed }: PackedTake): ArrayBufferLike[] {
  const packed = [...Object.values(lanes), ...Object.values(gates), ...(speed ? [speed] : [])];
  return packed.map(lane => lane.packed.buffer);
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/** So many pairs are made between two rests. */
const PAIRS_A_REST = 40_000;

function* unpackLane(lane: unknown): Generator<void, unknown> {
  if (!isObject(lane) || !(lane.packed instanceof Float64Array)) return lane;
  const { packed } = lane;
  const pairs = new Array<[number, number]>(packed.length >> 1);
  for (let k = 0; k < pairs.length; k++) {
    pairs[k] = [packed[2 * k]!, packed[2 * k + 1]!];
    if ((k + 1) % PAIRS_A_REST === 0) yield;
  }
  packedOf.set(pairs, packed);
  return pairs;
}

function* unpackBySteps(input: unknown): Generator<void, unknown> {
  if (!isObject(input)) return input;
  const unpacked: Record<string, unknown> = { ...input };
  for (const key of ["lanes", "gates"]) {
    const lanes = unpacked[key];
    if (!isObject(lanes)) continue;
    const made: Record<string, unknown> = {};
    for (const [id, lane] of Object.entries(lanes)) made[id] = yield* unpackLane(lane);
    unpacked[key] = made;
  }
  if (unpacked.speed !== undefined) unpacked.speed = yield* unpackLane(unpacked.speed);
  return unpacked;
}

/**
 * Unpacks whatever is packed of something that may be a take, and leaves the rest as it is: what comes out of storage is
 * parsed afterwards, whether it was packed or not.
 */
export function unpackTake(input: unknown): unknown {
  const steps = unpackBySteps(input);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** Unpacks as `unpackTake` does, a piece at a time between rests: a take of hours keeps nobody waiting. */
export async function unpackGently(input: unknown, rest: () => Promise<void>): Promise<unknown> {
  const steps = unpackBySteps(input);
  let step = steps.next();
  for (; !step.done; step = steps.next()) await rest();
  return step.value;
}
