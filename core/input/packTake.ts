import { createRecord } from "../formats/ownValue";
import type { Lane, Take } from "./takeSchema";

/**
 * A lane as one column of alternating x and value: cheap to copy between threads and to store, whatever its
 * length.
 */
export interface PackedLane {
  readonly packed: Float64Array;
}

type PackedLanes = Readonly<Record<string, PackedLane>>;

/** A take with packed lanes, for transfer and storage. Readers unpack it first. */
export type PackedTake = Omit<Take, "lanes" | "gates" | "speed"> & {
  readonly lanes: PackedLanes;
  readonly gates?: PackedLanes;
  readonly speed?: PackedLane;
};

/** Caches the packed form of each lane: lanes are immutable, and a long one is moved repeatedly. */
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

/** Packs a take; `unpackTake` reverses it exactly. */
export function packTake(take: Take): PackedTake {
  const { lanes, gates, speed, ...rest } = take;
  return {
    ...rest,
    lanes: mapValues(lanes, packLane),
    ...(gates ? { gates: mapValues(gates, packLane) } : {}),
    ...(speed ? { speed: packLane(speed) } : {}),
  };
}

/** Returns the buffers of a packed take, to transfer instead of copying; the sender loses them. */
export function buffersOf({ lanes, gates = {}, speed }: PackedTake): ArrayBufferLike[] {
  const packed = [...Object.values(lanes), ...Object.values(gates), ...(speed ? [speed] : [])];
  return packed.map(lane => lane.packed.buffer);
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/** Pairs unpacked between two yields. */
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
    const made = createRecord<unknown>();
    for (const [id, lane] of Object.entries(lanes)) made[id] = yield* unpackLane(lane);
    unpacked[key] = { ...made };
  }
  if (unpacked.speed !== undefined) unpacked.speed = yield* unpackLane(unpacked.speed);
  return unpacked;
}

/**
 * Unpacks every packed lane of an unknown value that may be a take, and leaves the rest unchanged. Values
 * from storage are parsed afterwards.
 */
export function unpackTake(input: unknown): unknown {
  const steps = unpackBySteps(input);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/**
 * Unpacks like `unpackTake`, in slices with a yield between them, so that a take of hours does not block the
 * page.
 */
export async function unpackGently(input: unknown, pause: () => Promise<void>): Promise<unknown> {
  const steps = unpackBySteps(input);
  let step = steps.next();
  for (; !step.done; step = steps.next()) await pause();
  return step.value;
}
