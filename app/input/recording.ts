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
}

/** Creates an empty recording. */
export function createRecording(rateHz: number): Recording {
  return { rateHz, lanes: new Map(), gates: new Map(), speed: [], gaps: [] };
}

/** Returns a lane of a recording, creating it if necessary. */
export function laneOf<V extends number>(lanes: Map<string, Pair<V>[]>, id: string): Pair<V>[] {
  let lane = lanes.get(id);
  if (!lane) lanes.set(id, (lane = []));
  return lane;
}

const copy = <V extends number>(lane: readonly Pair<V>[]) => lane.map(([x, value]): Pair<V> => [x, value]);

/** Returns a recording as a take of so many frames. `isKept`: whether a gate's lane belongs to the kit. */
export function takeOf(
  { rateHz, lanes, gates, speed, gaps }: Recording,
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
  };
}

/**
 * Creates a reader that returns the input recorded since its last call, for storing a recording while it
 * grows.
 */
export function createPieces(recording: Recording, isKept: (gateId: string) => boolean) {
  const given = new Map<readonly Pair[], number>();
  const since = (lane: readonly Pair[]) => {
    const from = given.get(lane) ?? 0;
    given.set(lane, lane.length);
    return lane.slice(from).map(([x, value]): Pair => [x, value]);
  };
  const fresh = (lanes: ReadonlyMap<string, readonly Pair[]>) =>
    [...lanes].map(([id, lane]) => [id, since(lane)] as const).filter(([, lane]) => lane.length > 0);
  return (frames: number): RecordingPiece => ({
    rate: recording.rateHz,
    frames,
    lanes: fresh(recording.lanes),
    gates: fresh(recording.gates).filter(([id]) => isKept(id)),
    speed: since(recording.speed),
    gaps: since(recording.gaps),
  });
}
