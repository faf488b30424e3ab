import { randomLogNormal, randomNormal } from "d3-random";
import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import type { Lane, Take } from "../../input/takeSchema";
import type { Character } from "./character";

/** Fingers that come within so long of each other were meant together. */
const TOGETHER_MS = 34;
/** A press that came twice by mistake comes again after so long. */
const AGAIN_MS = 40;

/** One press of a lane: from its first value above 0 to the next 0; `to` is undefined where it is never let go. */
interface Stroke {
  readonly control: string;
  readonly index: number;
  readonly from: number;
  readonly to: number | undefined;
  readonly pairs: Lane;
}

/** The presses of a lane, in order. Values between count as held, so an analog press moves and stretches whole. */
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

/** A number of 32 bits for a text and a number: FNV-1a, with a last mix so that seeds next to each other part ways. */
function hashOf(text: string, seed: number): number {
  let hash = 0x811c9dc5 ^ seed;
  for (let k = 0; k < text.length; k++) hash = Math.imul(hash ^ text.charCodeAt(k), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return hash ^ (hash >>> 16);
}

/** What chance says of one press: offsets in ms, how much longer, and whether it fails to come or comes twice. */
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

/** The press of a group that the others go by: of those meant together the first, by time and then by control. */
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

/** A press played: its pairs moved and stretched; a pair that neither moves nor stretches is left exactly as it is. */
function placed(stroke: Stroke, start: number, stretch: number, least: number): [number, number][] {
  if (start === stroke.from && stretch === 1) return stroke.pairs.map(([x, value]) => [x, value]);
  const length = stroke.to === undefined ? undefined : stroke.to - stroke.from;
  const factor = length === undefined || length === 0 ? stretch : Math.max(stretch, least / length);
  return stroke.pairs.map(([x, value]) => [start + (x - stroke.from) * factor, value]);
}

/**
 * A take as hands of a character would play it that try to repeat it: each press moved by its own draw, those meant
 * together by a common one and each finger by its own, lengths stretched, some presses missing, some doubled. Order on one
 * control is kept; no press gets shorter than one frame of the take unless it was, and none comes nearer than a frame to the
 * one before it unless it was. Draws come from one stream for each (seed, take, control, press): an edit elsewhere in the
 * take leaves them as they were. Gates and speed stay. With no spread it is the take itself.
 */
export function playHand(take: Take, character: Character, seed: number): Take {
  return playHandTold(take, character, seed).take;
}

/** Where each press of a take's lanes lies as a hand played it: from its first pair to its last, in frames of the take; undefined where it did not come. */
export type PlayedAt = Readonly<
  Record<string, readonly ({ readonly from: number; readonly to: number } | undefined)[]>
>;

/** As `playHand`, and tells where each press came. */
export function playHandTold(
  take: Take,
  character: Character,
  seed: number,
): { readonly take: Take; readonly at: PlayedAt } {
  const frameOf = (ms: number) => (ms * take.rate) / 1000;
  const lanes = Object.entries(take.lanes).map(
    ([control, lane]) => [control, strokesOf(control, lane)] as const,
  );
  const all = lanes.flatMap(([, strokes]) => strokes);
  const draws = new Map(all.map(stroke => [stroke, draw(character, seed, take.id, stroke)]));
  const leaders = leadersOf(all, frameOf(TOGETHER_MS));
  const at: Record<string, ({ from: number; to: number } | undefined)[]> = {};
  const played = lanes.map(([control, strokes]) => {
    const lane: [number, number][] = [];
    const came = strokes.map((): { from: number; to: number } | undefined => undefined);
    at[control] = came;
    let freeFrom = 0;
    let endBefore = 0;
    strokes.forEach((stroke, s) => {
      const leader = leaders.get(stroke)!;
      const own = draws.get(stroke)!;
      const finger = leader === stroke ? 0 : own.fingerMs;
      const offset = frameOf(draws.get(leader)!.onsetMs + finger);
      const gap = s === 0 ? 0 : Math.min(1, stroke.from - endBefore);
      // After one that did not move it may come just where it was: the sum would be off by the last bit.
      const isClose = gap < 1 && freeFrom === endBefore;
      const earliest = lane.length === 0 ? 0 : isClose ? stroke.from : freeFrom + gap;
      endBefore = stroke.to ?? Infinity;
      if (own.isMissed) return;
      const latest = Math.max(earliest, take.frames - 1);
      const start = Math.min(latest, Math.max(earliest, stroke.from + offset));
      const least = stroke.to === undefined ? 0 : Math.min(1, stroke.to - stroke.from);
      const pairs = placed(stroke, start, own.stretch, least);
      lane.push(...pairs);
      freeFrom = pairs.at(-1)![0];
      came[s] = { from: start, to: stroke.to === undefined ? take.frames : freeFrom };
      const next = strokes[s + 1];
      const again = freeFrom + Math.max(1, frameOf(AGAIN_MS));
      const length = Math.max(1, (freeFrom - start) / 2);
      const hasRoom = stroke.to !== undefined && again + length + 1 < (next?.from ?? take.frames);
      if (!own.isDoubled || !hasRoom) return;
      lane.push([again, 1], [again + length, 0]);
      freeFrom = again + length;
    });
    return [control, lane] as const;
  });
  return { take: { ...take, lanes: Object.fromEntries(played) }, at };
}
