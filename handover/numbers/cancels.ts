import Papa from "papaparse";
import type { Kit } from "#core";
import { createTrials, findCancels, MAX_MOVES_TRIED, type Blow } from "#stage";
import { INERT_CSV } from "../documents/inertText";

/** A stretch of a move's timeline in which another move may be performed. */
export interface Follow {
  /** Ids of both moves, and their names. */
  readonly move: string;
  readonly then: string;
  readonly moveName: string;
  readonly thenName: string;
  /** The outcome of the first move's blow; undefined for kits without a duel. */
  readonly on: Blow | undefined;
  /** Frames of the first move's timeline, counted from its performance; both included. */
  readonly from: number;
  readonly to: number;
  /** The length of that timeline. */
  readonly of: number;
}

/**
 * Returns which moves may follow which before these are over, in kit order, as found by running the first 60 moves (see
 * `findCancels`). Moves without a timeline, and those that no input made for their patterns performs, are left out as first ones.
 */
export function listFollows(kit: Kit): readonly Follow[] {
  const moves = kit.moves ?? [];
  const trials = createTrials(kit);
  return moves.slice(0, MAX_MOVES_TRIED).flatMap((move, m) => {
    const found = findCancels(kit, m, trials);
    if (!found) return [];
    const isDuel = found.follows.size > 1;
    return [...found.follows].flatMap(([blow, follows]) =>
      follows.flatMap((ranges, n) =>
        ranges.map(({ from, to }): Follow => {
          const then = moves[n]!;
          return {
            ...{ move: move.id, then: then.id, moveName: move.name, thenName: then.name },
            ...{ on: isDuel ? blow : undefined, from, to, of: found.frames },
          };
        }),
      ),
    );
  });
}

const COLUMNS = ["move", "then", "on", "from_frame", "to_frame", "of_frames"] as const;

/** Formats which moves may follow which as CSV (RFC 4180): a header, then a row for each stretch of frames. */
export function formatFollowsCsv(follows: readonly Follow[]): string {
  const rows = follows.map(({ move, then, on, from, to, of }) => ({
    ...{ move, then, on: on ?? "" },
    ...{ from_frame: from, to_frame: to, of_frames: of },
  }));
  return `${Papa.unparse(rows, { ...INERT_CSV, columns: [...COLUMNS] })}\r\n`;
}
