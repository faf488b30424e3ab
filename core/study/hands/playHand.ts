import { createRecord } from "../../formats/ownValue";
import { randomLogNormal, randomNormal } from "d3-random";
import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import type { Lane, Take } from "../../input/takeSchema";
import type { TakeAims } from "./aims";
import type { Character } from "./character";

/** Fingers that come within this time of each other were meant together. */
const TOGETHER_MS = 34;
/** The delay after which an accidental second press follows. */
const AGAIN_MS = 40;

/**
 * One press of a lane: from its first value above 0 to the next 0; `to` is undefined if it is never released.
 */
interface Stroke {
  readonly control: string;
  readonly index: number;
  readonly from: number;
  readonly to: number | undefined;
  readonly pairs: Lane;
}

/**
 * Returns the presses of a lane, in order. Values in between count as held, so that an analog press moves and
 * stretches as a whole.
 */
function strokesOf(control: string, lane: Lane): Stroke[] {
  const strokes: Stroke[] = [];
  let pairs: [number, number][] = [];
  const end = (to: number | undefined) => {
    if (pairs.length > 0) strokes.push({ control, index: strokes.length, from: pairs[0]![0], to, pairs });
    pairs = [];
  };
  for (const [x, value] of lane) {
    if (value > 0 || pairs.length > 0) pairs.push([x, value]);
    if (value === 0) end(x);
  }
  end(undefined);
  return strokes;
}

/**
 * Returns a 32-bit hash of a text and a number: FNV-1a with a final mix, so that neighbouring seeds diverge.
 */
function hashOf(text: string, seed: number): number {
  let hash = 0x811c9dc5 ^ seed;
  for (let k = 0; k < text.length; k++) hash = Math.imul(hash ^ text.charCodeAt(k), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return hash ^ (hash >>> 16);
}

/** The random draws for one press: offsets in ms, the length factor, and whether it is missing or doubled. */
interface Draw {
  readonly onsetMs: number;
  readonly fingerMs: number;
  readonly stretch: number;
  readonly isMissed: boolean;
  readonly isDoubled: boolean;
}

function draw(character: Character, seed: number, takeId: string, stroke: Stroke): Draw {
  const generator = xoroshiro128plus(hashOf(`${takeId}\n${stroke.control}\n${stroke.index}`, seed));
  const uniform = () => uniformFloat64(generator);
  const { biasMs, spreadMs, fingersMs, lengthPercent, missedPercent, doubledPercent } = character;
  return {
    onsetMs: randomNormal.source(uniform)(biasMs, spreadMs)(),
    fingerMs: randomNormal.source(uniform)(0, fingersMs)(),
    stretch: randomLogNormal.source(uniform)(0, lengthPercent / 100)(),
    isMissed: uniform() * 100 < missedPercent,
    isDoubled: uniform() * 100 < doubledPercent,
  };
}

/** Returns the leader of each press: of presses meant together the first, by time and then by control. */
function leadersOf(strokes: readonly Stroke[], togetherFrames: number): ReadonlyMap<Stroke, Stroke> {
  const sorted = [...strokes].sort((a, b) => a.from - b.from || (a.control < b.control ? -1 : 1));
  const leaders = new Map<Stroke, Stroke>();
  let leader: Stroke | undefined;
  for (const stroke of sorted) {
    if (!leader || stroke.from - leader.from > togetherFrames) leader = stroke;
    leaders.set(stroke, leader);
  }
  return leaders;
}

/**
 * Returns a press's pairs, moved and stretched; a pair that neither moves nor stretches is returned
 * unchanged.
 */
function placed(stroke: Stroke, start: number, stretch: number, least: number): [number, number][] {
  if (start === stroke.from && stretch === 1) return stroke.pairs.map(([x, value]) => [x, value]);
  const length = stroke.to === undefined ? undefined : stroke.to - stroke.from;
  const factor = length === undefined || length === 0 ? stretch : Math.max(stretch, least / length);
  return stroke.pairs.map(([x, value]) => [start + (x - stroke.from) * factor, value]);
}

/**
 * Returns a take as a player of a character would repeat it: each press moved by its own draw, presses meant
 * together by a common one plus one per finger, lengths stretched, some presses missing, some doubled. The
 * order on one control is kept; no press becomes shorter than one frame of the take unless it was, and none
 * comes closer than a frame to the previous one unless it was. Each (seed, take, control, press) has its own
 * random stream, so an edit elsewhere in the take leaves the draws unchanged. Gates and speed are kept.
 * Without spread the take is returned unchanged. Example: `playHand(take, CHARACTERS[0], 1)`.
 *
 * With `aims` the take is one of the player to whom the character was fitted: its presses already have that player's bias,
 * which is not added again, and each press is played around its aim, so that scatter is not added to scatter. A press whose
 * aim is not known is played around where it was recorded.
 */
export function playHand(take: Take, character: Character, seed: number, aims?: TakeAims): Take {
  return playHandWithPositions(take, character, seed, aims).take;
}

/**
 * The position of each press of a take's lanes in a repetition: its first and last pair, in frames of the
 * take, and the draw of its onset, common to presses meant together; undefined for a missing press.
 */
export type PlayedAt = Readonly<
  Record<
    string,
    readonly ({ readonly from: number; readonly to: number; readonly onsetMs: number } | undefined)[]
  >
>;

/** A repetition of a take, with the position of each press in it. */
export interface PlayedTake {
  readonly take: Take;
  readonly at: PlayedAt;
  /** The accidental second presses, in frames of the take. */
  readonly doubled: readonly { readonly control: string; readonly from: number; readonly to: number }[];
}

/** Returns the same as `playHand`, with the position of each press. */
export function playHandWithPositions(
  take: Take,
  character: Character,
  seed: number,
  aims?: TakeAims,
): PlayedTake {
  const played = aims ? { ...character, biasMs: 0 } : character;
  const aimOf = ({ control, index }: Stroke) => aims?.get(control)?.[index]?.shiftMs ?? 0;
  const frameOf = (ms: number) => (ms * take.rate) / 1000;
  const lanes = Object.entries(take.lanes).map(
    ([control, lane]) => [control, strokesOf(control, lane)] as const,
  );
  const all = lanes.flatMap(([, strokes]) => strokes);
  const draws = new Map(all.map(stroke => [stroke, draw(played, seed, take.id, stroke)]));
  const leaders = leadersOf(all, frameOf(TOGETHER_MS));
  const at = createRecord<({ from: number; to: number; onsetMs: number } | undefined)[]>();
  const doubled: { control: string; from: number; to: number }[] = [];
  const lanesPlayed = lanes.map(([control, strokes]) => {
    const lane: [number, number][] = [];
    const came = strokes.map((): { from: number; to: number; onsetMs: number } | undefined => undefined);
    at[control] = came;
    let freeFrom = 0;
    let endBefore = 0;
    strokes.forEach((stroke, s) => {
      const leader = leaders.get(stroke)!;
      const own = draws.get(stroke)!;
      const finger = leader === stroke ? 0 : own.fingerMs;
      const offset = frameOf(aimOf(leader) + draws.get(leader)!.onsetMs + finger);
      const gap = s === 0 ? 0 : Math.min(1, stroke.from - endBefore);
      // After a press that did not move, a press may keep its exact position; the sum would differ in the
      // last bit.
      const isClose = gap < 1 && freeFrom === endBefore;
      const earliest = lane.length === 0 ? 0 : isClose ? stroke.from : freeFrom + gap;
      endBefore = stroke.to ?? Infinity;
      if (own.isMissed) return;
      // A press after the last frame is never read, and no hand brings it back.
      const latest = Math.max(earliest, take.frames - 1, stroke.from);
      const start = Math.min(latest, Math.max(earliest, stroke.from + offset));
      const least = stroke.to === undefined ? 0 : Math.min(1, stroke.to - stroke.from);
      const pairs = placed(stroke, start, own.stretch, least);
      lane.push(...pairs);
      freeFrom = pairs.at(-1)![0];
      const { onsetMs } = draws.get(leader)!;
      came[s] = { from: start, to: stroke.to === undefined ? take.frames : freeFrom, onsetMs };
      const next = strokes[s + 1];
      const again = freeFrom + Math.max(1, frameOf(AGAIN_MS));
      const length = Math.max(1, (freeFrom - start) / 2);
      const hasRoom = stroke.to !== undefined && again + length + 1 < (next?.from ?? take.frames);
      if (!own.isDoubled || !hasRoom) return;
      lane.push([again, 1], [again + length, 0]);
      doubled.push({ control, from: again, to: again + length });
      freeFrom = again + length;
    });
    return [control, lane] as const;
  });
  return { take: { ...take, lanes: Object.fromEntries(lanesPlayed) }, at, doubled };
}
