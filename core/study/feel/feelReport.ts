import { medianSorted } from "simple-statistics";
import type { Program } from "../../run/program";
import { countWords } from "../eventWords";
import type { RuleCounts } from "../ruleCounts";
import type { Delay } from "./delays";
import { MOST_SHIFT, TIGHT_FRAMES, type Miss, type Room } from "./rooms";

/** What was found in one take. */
export interface TakeFeel {
  readonly take: string;
  readonly counts: RuleCounts;
  readonly rooms: readonly Room[];
  readonly misses: readonly Miss[];
  readonly delays: readonly Delay[];
}

/** Something found, with the take it was found in. */
export type InTake<T> = T & { readonly take: string };

/** What a move came to over takes. */
export interface MoveFeel {
  readonly move: number;
  readonly asked: number;
  readonly performed: number;
  readonly byMemory: number;
  readonly forgiven: number;
  /** Requests whose press another move took. */
  readonly gaveWay: number;
  /** Presses that were lost for it; a request that came to nothing though its press was used is none. */
  readonly lost: number;
  /** By how many frames the nearest lost press missed; undefined where none was within reach. */
  readonly nearest: number | undefined;
  /** Frames of room on the narrower side of the tightest use; undefined where nothing was used. */
  readonly tightest: number | undefined;
  readonly medianDelay: number | undefined;
  readonly rooms: readonly InTake<Room>[];
  readonly misses: readonly InTake<Miss>[];
  readonly delays: readonly InTake<Delay>[];
}

/** The frames of room on the narrower side of a use that the rules end, not a neighbour; `MOST_SHIFT` where none do. */
export function narrowerSide({ early, late, isEarlyBounded, isLateBounded }: Room): number {
  return Math.min(isEarlyBounded ? MOST_SHIFT : early, isLateBounded ? MOST_SHIFT : late);
}

/** Is a use tight: one frame of room or none on a side? */
export function isTight(room: Room): boolean {
  return narrowerSide(room) <= TIGHT_FRAMES;
}

function gather<T>(
  feels: readonly TakeFeel[],
  listOf: (feel: TakeFeel) => readonly T[],
  isOwn: (item: T) => boolean,
): InTake<T>[] {
  return feels.flatMap(feel =>
    listOf(feel)
      .filter(isOwn)
      .map(item => ({ ...item, take: feel.take })),
  );
}

/** Sums up by move what was found in takes: tightest uses, nearest losses and longest delays first. Moves that were never asked for are there too. */
export function reportMoves(program: Program, feels: readonly TakeFeel[]): MoveFeel[] {
  return program.moves.map((_, move): MoveFeel => {
    const counts = feels.map(feel => feel.counts.moves[move]!);
    const sum = (of: (count: (typeof counts)[number]) => number) =>
      counts.reduce((total, count) => total + of(count), 0);
    const isOwn = (item: { readonly move: number }) => item.move === move;
    const rooms = gather(feels, feel => feel.rooms, isOwn).sort((a, b) => narrowerSide(a) - narrowerSide(b));
    const reach = ({ by }: Miss) => (by === undefined ? Infinity : Math.abs(by));
    const misses = gather(feels, feel => feel.misses, isOwn).sort((a, b) => reach(a) - reach(b));
    const delays = gather(feels, feel => feel.delays, isOwn).sort((a, b) => b.total - a.total);
    const rising = delays.map(({ total }) => total).reverse();
    return {
      move,
      asked: sum(({ asked }) => asked),
      performed: sum(({ performed: by }) => by.direct + by.buffer + by.coyote + by.both),
      byMemory: sum(({ performed: by }) => by.buffer + by.both),
      forgiven: sum(({ performed: by }) => by.coyote + by.both),
      gaveWay: sum(({ gaveWay }) => gaveWay),
      lost: misses.length,
      nearest: misses[0] && Number.isFinite(reach(misses[0])) ? reach(misses[0]) : undefined,
      tightest: rooms[0] && narrowerSide(rooms[0]),
      medianDelay: rising.length > 0 ? medianSorted(rising) : undefined,
      rooms,
      misses,
      delays,
    };
  });
}

/** One line: "41 asked, 38 performed, 6 by memory, 4 forgiven, 3 lost, the nearest by 1f; tightest use 1f; median delay 2f". */
export function formatMoveFeel(feel: MoveFeel): string {
  const { asked, performed, byMemory, forgiven, gaveWay, lost, nearest, tightest, medianDelay } = feel;
  if (asked === 0) return "never asked for in these takes";
  const counts = [
    `${asked} asked`,
    `${performed} performed`,
    ...(byMemory > 0 ? [`${byMemory} by memory`] : []),
    ...(forgiven > 0 ? [`${forgiven} forgiven`] : []),
    ...(gaveWay > 0 ? [`${gaveWay} gave way`] : []),
    ...(lost > 0 ? [`${lost} lost${nearest === undefined ? "" : `, the nearest by ${nearest}f`}`] : []),
  ];
  const more = [
    ...(tightest === undefined
      ? []
      : [tightest >= MOST_SHIFT ? "no tight use" : `tightest use ${tightest}f`]),
    ...(medianDelay === undefined ? [] : [`median delay ${medianDelay}f`]),
  ];
  return [counts.join(", "), ...more].join("; ");
}

/** How many uses are tight, in words; empty where none are. */
export function formatTight(feel: MoveFeel): string {
  const tight = feel.rooms.filter(isTight).length;
  return tight === 0 ? "" : countWords(tight, "tight use", "tight uses");
}
