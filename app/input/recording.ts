import type { Take } from "#core";
import type { RecordingPiece } from "../storage/recordings";

type Pair<V extends number = number> = [number, V];

/** Recorded input: one lane per id, pairs in frames of the kit's rate. Append-only. */
export interface Recording {
  readonly rateHz: number;
  readonly lanes: Map<string, Pair[]>;
  readonly gates: Map<string, Pair<0 | 1>[]>;
  readonly speed: Pair[];
  /** Time that passed unrecorded: [frame before which it passed, ms]. */
  readonly gaps: Pair[];
  /** The frames on which a running game itself performed a move, by move. */
  readonly did: Map<string, number[]>;
  /** Whether the kit's stage takes no part in it. */
  readonly isUnstaged: boolean;
}

/** Creates an empty recording. */
export function createRecording(rateHz: number, isUnstaged = false): Recording {
  return { rateHz, lanes: new Map(), gates: new Map(), speed: [], gaps: [], did: new Map(), isUnstaged };
}

/** Returns a lane of a recording, creating it if necessary. */
export function laneOf<V extends number>(lanes: Map<string, Pair<V>[]>, id: string): Pair<V>[] {
  let lane = lanes.get(id);
  if (!lane) lanes.set(id, (lane = []));
  return lane;
}

/** Returns a copy of a recording that ends with a frame: what landed later is left out. */
export function recordingUpTo(recording: Recording, frame: number): Recording {
  const cut = <T extends Pair>(pairs: readonly T[]) => pairs.filter(([x]) => x <= frame);
  const cutLanes = <T extends Pair>(lanes: ReadonlyMap<string, T[]>) =>
    new Map([...lanes].map(([id, lane]) => [id, cut(lane)]));
  const { lanes, gates, speed, gaps, did } = recording;
  return {
    ...recording,
    lanes: cutLanes(lanes),
    gates: cutLanes(gates),
    speed: cut(speed),
    gaps: cut(gaps),
    did: new Map([...did].map(([id, frames]) => [id, frames.filter(f => f <= frame)])),
  };
}

/** Returns whether anything was recorded after a frame. */
export function hasAfter({ lanes, gates, speed, gaps }: Recording, frame: number): boolean {
  const isAfter = (pairs: readonly Pair[]) => (pairs.at(-1)?.[0] ?? -1) > frame;
  return [...lanes.values(), ...gates.values(), speed, gaps].some(isAfter);
}

const copy = <V extends number>(lane: readonly Pair<V>[]) => lane.map(([x, value]): Pair<V> => [x, value]);

/** Returns a recording as a take of so many frames. `isKept`: whether a gate's lane belongs to the kit. */
export function takeOf(
  { rateHz, lanes, gates, speed, gaps, did, isUnstaged }: Recording,
  frames: number,
  named: { readonly id: string; readonly name: string; readonly kitId: string },
  isKept: (gateId: string) => boolean,
): Take {
  const used = <V extends number>(from: ReadonlyMap<string, Pair<V>[]>) =>
    [...from].filter(([, lane]) => lane.length > 0);
  const gateLanes = used(gates).filter(([id]) => isKept(id));
  return {
    format: "moss-tap/take",
    version: 1,
    id: named.id,
    name: named.name,
    kit: named.kitId,
    rate: rateHz,
    frames,
    lanes: Object.fromEntries(used(lanes).map(([id, lane]) => [id, copy(lane)])),
    ...(gateLanes.length > 0
      ? { gates: Object.fromEntries(gateLanes.map(([id, lane]) => [id, copy(lane)])) }
      : {}),
    ...(speed.length > 0 ? { speed: copy(speed) } : {}),
    ...(gaps.length > 0 ? { gaps: copy(gaps) } : {}),
    ...(did.size > 0 ? { did: Object.fromEntries([...did].map(([id, xs]) => [id, xs.slice()])) } : {}),
    ...(isUnstaged ? { stage: "none" as const } : {}),
  };
}

/**
 * Creates a reader that returns the input recorded since its last call, for storing a recording while it
 * grows.
 */
export function createPieces(recording: Recording, isKept: (gateId: string) => boolean) {
  const given = new Map<readonly unknown[], number>();
  const rest = <T>(list: readonly T[]): T[] => {
    const from = given.get(list) ?? 0;
    given.set(list, list.length);
    return list.slice(from);
  };
  const since = (lane: readonly Pair[]) => rest(lane).map(([x, value]): Pair => [x, value]);
  const fresh = (lanes: ReadonlyMap<string, readonly Pair[]>) =>
    [...lanes].map(([id, lane]) => [id, since(lane)] as const).filter(([, lane]) => lane.length > 0);
  return (frames: number): RecordingPiece => ({
    rate: recording.rateHz,
    frames,
    lanes: fresh(recording.lanes),
    gates: fresh(recording.gates).filter(([id]) => isKept(id)),
    speed: since(recording.speed),
    gaps: since(recording.gaps),
    did: [...recording.did].map(([id, xs]) => [id, rest(xs)] as const).filter(([, xs]) => xs.length > 0),
    ...(recording.isUnstaged ? { stage: "none" as const } : {}),
  });
}
