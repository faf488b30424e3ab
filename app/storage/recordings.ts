import * as v from "valibot";
import { parseTake, type Take } from "#core";

type Pair = readonly [number, number];
/** Lanes by id, as entries: every id counts, whatever languages keep it for. */
type Lanes = readonly (readonly [string, readonly Pair[]])[];

/** What a recording has come to since the chunk before: pairs to add to its lanes, and how long it is by now. */
export interface RecordingPiece {
  readonly rate: number;
  readonly frames: number;
  readonly lanes: Lanes;
  readonly gates: Lanes;
  readonly speed: readonly Pair[];
}

/** A piece as it is kept while the recording goes on. */
export interface RecordingChunk extends RecordingPiece {
  readonly kitId: string;
  readonly id: string;
  readonly place: number;
  /** On the last piece of a recording that came to its end: what is known of it as a take. */
  readonly whole?: { readonly name: string; readonly note?: string };
}

/** A recording put together from its pieces. `isWhole`: it came to its end, and only its take was not kept yet. */
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
  whole: v.exactOptional(v.object({ name: v.string(), note: v.exactOptional(v.string()) })),
});

function join(pieces: readonly Lanes[]): Record<string, Pair[]> {
  const whole = new Map<string, Pair[]>();
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
 * Returns the recordings that chunks are pieces of: one take each, the pieces that read in their order, under its own name
 * if it is whole, else under the one given. Those without any frame are left out.
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
    const whole = own.at(-1)!.whole;
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
      ...(whole?.note === undefined ? {} : { note: whole.note }),
    });
    return take.ok && take.value.frames > 0 ? [{ take: take.value, isWhole: whole !== undefined }] : [];
  });
}
