import * as v from "valibot";
import { parseTake, type Take } from "#core";

type Pair = readonly [number, number];
/** Lanes as entries by id, so that no id has a special meaning. */
type Lanes = readonly (readonly [string, readonly Pair[]])[];

/** The growth of a recording since the previous chunk: pairs to append to its lanes, and its total length. */
export interface RecordingPiece {
  readonly rate: number;
  readonly frames: number;
  readonly lanes: Lanes;
  readonly gates: Lanes;
  readonly speed: readonly Pair[];
  readonly gaps: readonly Pair[];
  /** By move: the frames on which a running game performed it. */
  readonly did: readonly (readonly [string, readonly number[]])[];
  readonly stage?: "none";
}

/** A stored chunk of a recording in progress. */
export interface RecordingChunk extends RecordingPiece {
  readonly kitId: string;
  readonly id: string;
  readonly place: number;
  /** On the last chunk of a completed recording: its description as a take. */
  readonly whole?: { readonly name: string; readonly note?: string };
}

/**
 * A recording assembled from its chunks. `isWhole`: it was completed, and only its take is not stored yet.
 */
export interface JoinedRecording {
  readonly take: Take;
  readonly isWhole: boolean;
}

const pairs = v.array(v.tuple([v.number(), v.number()]));
const lanes = v.array(v.tuple([v.string(), pairs]));
const chunkSchema = v.looseObject({
  id: v.string(),
  place: v.number(),
  rate: v.number(),
  frames: v.number(),
  lanes,
  gates: lanes,
  speed: pairs,
  // Chunks of an earlier version have none.
  gaps: v.optional(pairs, []),
  did: v.optional(v.array(v.tuple([v.string(), v.array(v.number())])), []),
  stage: v.exactOptional(v.literal("none")),
  whole: v.exactOptional(v.object({ name: v.string(), note: v.exactOptional(v.string()) })),
});

function join<T>(pieces: readonly (readonly (readonly [string, readonly T[]])[])[]): Record<string, T[]> {
  const whole = new Map<string, T[]>();
  for (const piece of pieces) {
    for (const [id, more] of piece) {
      const lane = whole.get(id);
      if (lane) lane.push(...more);
      else whole.set(id, [...more]);
    }
  }
  return Object.fromEntries(whole);
}

/**
 * Returns one take per recording, assembled from its readable chunks in order, with its own name if it was
 * completed and otherwise the given one. Recordings without frames are omitted.
 */
export function joinRecordings(
  kitId: string,
  chunks: readonly unknown[],
  nameOf: (n: number) => string,
): JoinedRecording[] {
  const read = chunks.flatMap(chunk => {
    const parsed = v.safeParse(chunkSchema, chunk);
    return parsed.success ? [parsed.output] : [];
  });
  const ids = [...new Set(read.map(chunk => chunk.id))];
  return ids.flatMap((id, n) => {
    const own = read.filter(chunk => chunk.id === id).sort((a, b) => a.place - b.place);
    const gates = join(own.map(chunk => chunk.gates));
    const speed = own.flatMap(chunk => chunk.speed);
    const gaps = own.flatMap(chunk => chunk.gaps);
    const did = join(own.map(chunk => chunk.did));
    const { whole, stage } = own.at(-1)!;
    const take = parseTake({
      format: "moss-tap/take",
      version: 1,
      id,
      name: whole?.name ?? nameOf(n),
      kit: kitId,
      rate: own[0]!.rate,
      frames: Math.max(...own.map(chunk => chunk.frames)),
      lanes: join(own.map(chunk => chunk.lanes)),
      ...(Object.keys(gates).length > 0 ? { gates } : {}),
      ...(speed.length > 0 ? { speed } : {}),
      ...(gaps.length > 0 ? { gaps } : {}),
      ...(Object.keys(did).length > 0 ? { did } : {}),
      ...(stage === undefined ? {} : { stage }),
      ...(whole?.note === undefined ? {} : { note: whole.note }),
    });
    return take.ok && take.value.frames > 0 ? [{ take: take.value, isWhole: whole !== undefined }] : [];
  });
}
