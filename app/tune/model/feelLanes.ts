import { isTight, MAX_SHIFT_FRAMES, PERFORMED_BY, type MoveFeel } from "#core";
import { formatMiss, formatRoom } from "./feelWords";

/** A press in the picture of feel: the stretch around it in which it would still do, or the shift that would save it. */
export interface FeelStroke {
  readonly take: string;
  /** The frame of the press. */
  readonly frame: number;
  /** Frames before and after the press. */
  readonly from: number;
  readonly to: number;
  /** Whether the stretch goes on beyond a side, or another press ended the search there. */
  readonly isOpenFrom: boolean;
  readonly isOpenTo: boolean;
  readonly look: "used" | "saved" | "lost";
  readonly isTight: boolean;
  readonly words: string;
}

/** The strokes of a move, tightest first, then the lost ones, nearest first. */
export interface FeelLane {
  readonly move: number;
  readonly name: string;
  readonly strokes: readonly FeelStroke[];
  /** How many presses there are besides. */
  readonly more: number;
  readonly used: number;
  readonly lost: number;
}

/** Returns the counts of a lane as words: used, lost, and those that are not drawn. */
export function listLaneCounts({ used, lost, more }: FeelLane): string[] {
  return [`${used} used`, ...(lost > 0 ? [`${lost} lost`] : []), ...(more > 0 ? [`${more} not drawn`] : [])];
}

/** The most strokes of a lane, of which some are kept for lost presses. */
const MAX_STROKES = 18;
const MAX_LOST = 6;

const BY_WORDS: Readonly<Record<(typeof PERFORMED_BY)[number], string>> = {
  direct: "used directly",
  buffer: "saved by the buffer",
  coyote: "saved by coyote",
  both: "saved by buffer and coyote",
};

/** Returns a lane for every move that some press was used or lost for. `nameOf`: the name of a move by its index. */
export function listFeelLanes(moves: readonly MoveFeel[], nameOf: (move: number) => string): FeelLane[] {
  return moves.flatMap(({ move, rooms, misses }): FeelLane[] => {
    if (rooms.length + misses.length === 0) return [];
    const lost = misses.slice(0, Math.max(MAX_LOST, MAX_STROKES - rooms.length));
    const strokes: FeelStroke[] = rooms.slice(0, MAX_STROKES - lost.length).map(room => {
      const { take, frame, early, late, isEarlyBounded, isLateBounded } = room;
      const by = PERFORMED_BY[room.by]!;
      return {
        take,
        frame,
        from: -early,
        to: late,
        isOpenFrom: isEarlyBounded || early >= MAX_SHIFT_FRAMES,
        isOpenTo: isLateBounded || late >= MAX_SHIFT_FRAMES,
        look: by === "direct" ? "used" : "saved",
        isTight: isTight(room),
        words: `${BY_WORDS[by]}; ${formatRoom(room)}`,
      };
    });
    const losses = lost.map((miss): FeelStroke => {
      const { take, frame, by } = miss;
      return {
        take,
        frame,
        from: Math.min(0, by ?? 0),
        to: Math.max(0, by ?? 0),
        isOpenFrom: false,
        isOpenTo: false,
        look: "lost",
        isTight: false,
        words: `lost; ${formatMiss(miss, nameOf)}`,
      };
    });
    const all = [...strokes, ...losses];
    const more = rooms.length + misses.length - all.length;
    return [{ move, name: nameOf(move), strokes: all, more, used: rooms.length, lost: misses.length }];
  });
}
