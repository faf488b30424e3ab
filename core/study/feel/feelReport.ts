import { medianSorted } from "simple-statistics";
import type { Program } from "../../program/program";
import { countWords } from "../../formats/words";
import { formatMoveCounts } from "../outcomes/formatCounts";
import { sumCounts, type MoveCounts, type RuleCounts } from "../outcomes/ruleCounts";
import type { Delay } from "./delays";
import { MAX_SHIFT_FRAMES, TIGHT_FRAMES, type Miss, type Room } from "./rooms";

/** The findings in one take. `counts`: see readOutcomes. */
export interface TakeFeel {
  readonly take: string;
  readonly counts: RuleCounts;
  readonly rooms: readonly Room[];
  readonly misses: readonly Miss[];
  readonly delays: readonly Delay[];
  /** See listOnsets. */
  readonly onsets: readonly number[];
}

/** A finding with its take. */
export type InTake<T> = T & { readonly take: string };

/** The findings about one move over all takes. */
export interface MoveFeel {
  readonly move: number;
  readonly counts: MoveCounts;
  /** The miss of the nearest lost press, in frames; undefined if none was within reach. */
  readonly nearest: number | undefined;
  /** Frames of room on the narrower side of the tightest use; undefined without uses. */
  readonly tightest: number | undefined;
  /** In frames; undefined if nothing was performed. */
  readonly medianDelay: number | undefined;
  readonly rooms: readonly InTake<Room>[];
  readonly misses: readonly InTake<Miss>[];
  readonly delays: readonly InTake<Delay>[];
}

/**
 * Returns the room on the narrower side of a use, in frames, counting only sides bounded by the rules and not
 * by a neighbour; `MAX_SHIFT_FRAMES` if neither is.
 */
export function narrowerSide({ early, late, isEarlyBounded, isLateBounded }: Room): number {
  return Math.min(isEarlyBounded ? MAX_SHIFT_FRAMES : early, isLateBounded ? MAX_SHIFT_FRAMES : late);
}

/** Returns whether a use has at most TIGHT_FRAMES of room on a side. */
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

/**
 * Returns the findings by move: tightest uses, nearest losses and longest delays first. Includes moves that
 * were never requested.
 */
export function reportMoves(program: Program, feels: readonly TakeFeel[]): MoveFeel[] {
  const { moves } = sumCounts(
    program,
    feels.map(({ counts }) => counts),
  );
  return moves.map((counts, move): MoveFeel => {
    const isOwn = (item: { readonly move: number }) => item.move === move;
    const rooms = gather(feels, feel => feel.rooms, isOwn).sort((a, b) => narrowerSide(a) - narrowerSide(b));
    const reach = ({ by }: Miss) => (by === undefined ? Infinity : Math.abs(by));
    const misses = gather(feels, feel => feel.misses, isOwn).sort((a, b) => reach(a) - reach(b));
    const delays = gather(feels, feel => feel.delays, isOwn).sort((a, b) => b.total - a.total);
    const rising = delays.map(({ total }) => total).reverse();
    return {
      move,
      counts,
      nearest: misses[0] && Number.isFinite(reach(misses[0])) ? reach(misses[0]) : undefined,
      tightest: rooms[0] && narrowerSide(rooms[0]),
      medianDelay: rising.length > 0 ? medianSorted(rising) : undefined,
      rooms,
      misses,
      delays,
    };
  });
}

/**
 * Formats one line: "asked for 41 times: performed 38 times (6 by buffer), lost 3 times; 2 presses lost, the
 * nearest by 1f; tightest use 1f; median delay 2f". `nameOf` returns the name of a move by its index.
 */
export function formatMoveFeel(feel: MoveFeel, nameOf: (move: number) => string): string {
  const { counts, nearest, tightest, medianDelay } = feel;
  if (counts.asked === 0) return "never asked for in these takes";
  const near = nearest === undefined ? "" : `, the nearest by ${nearest}f`;
  const more = [
    ...(tightest === undefined
      ? []
      : [tightest >= MAX_SHIFT_FRAMES ? "no tight use" : `tightest use ${tightest}f`]),
    ...(medianDelay === undefined ? [] : [`median delay ${medianDelay}f`]),
  ];
  return [formatMoveCounts(counts, nameOf) + near, ...more].join("; ");
}

/** Formats the number of tight uses; empty if there are none. */
export function formatTight(feel: MoveFeel): string {
  const tight = feel.rooms.filter(isTight).length;
  return tight === 0 ? "" : countWords(tight, "tight use", "tight uses");
}
