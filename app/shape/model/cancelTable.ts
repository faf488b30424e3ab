import { parseFrames, type Kit, type Move } from "#core";
import { BLOW_WORDS, formatRanges, MAX_MOVES_TRIED, type Blow, type Cancels } from "#stage";
import { findFollowWindows, isHeldBack, type FollowWhen, type FollowWindow } from "../../edits/cancelEdits";
import type { Tried } from "../useTrials";

/**
 * Returns the lines of a cell: the frames on which a move may follow, those of the same outcomes in one line; none if it may
 * not before the first one is over.
 */
export function listCellLines({ frames, follows }: Cancels, second: number): readonly string[] {
  const byRange = new Map<string, Blow[]>();
  for (const [blow, all] of follows) {
    const ranges = all[second]!;
    if (ranges.length === 0) continue;
    const [only] = ranges;
    const isAlways = ranges.length === 1 && only!.from <= 1 && only!.to >= Math.ceil(frames) - 1;
    const words = isAlways ? "any frame" : formatRanges(ranges);
    byRange.set(words, [...(byRange.get(words) ?? []), blow]);
  }
  return [...byRange].map(([words, blows]) =>
    blows.length === follows.size ? words : `${words} ${blows.map(blow => BLOW_WORDS[blow]).join(", ")}`,
  );
}

/** Returns the window that is offered first: from the first active frame to the last frame of the move. */
export function firstWindow(kit: Kit, move: Move, when: FollowWhen): FollowWindow {
  const count = (written = "0f") => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const { startup, active, recovery } = move.frames ?? {};
  const last = count(startup) + count(active) + count(recovery) - 1;
  return { when, from: startup ?? "0f", to: `${Math.max(0, last)}f` };
}

/** A cell of the table of cancels. */
export interface CancelCell {
  readonly lines: readonly string[];
  /** The index of its window in the `opens` of the first move; −1 for none. */
  readonly at: number;
  /** `free`: nothing holds it back; `never`: it has a window, in which it never may be performed. */
  readonly look: "window" | "free" | "never" | "none";
}

/** A row of the table of cancels: a first move, and a cell for each second one, by index. */
export interface CancelRow {
  readonly move: Move;
  readonly first: number;
  readonly frames: number;
  readonly cells: readonly CancelCell[];
}

/**
 * Lays out the table of cancels, and lists the names of moves with a timeline that could not be tried. Findings of a kit with
 * other moves are not shown beside those of this one.
 */
export function layoutCancels(
  kit: Kit,
  tried: Tried,
): { readonly rows: readonly CancelRow[]; readonly untried: readonly string[] } {
  const moves = (kit.moves ?? []).slice(0, MAX_MOVES_TRIED);
  if (tried.kit.moves?.length !== kit.moves?.length) return { rows: [], untried: [] };
  const windows = moves.map((_, second) => findFollowWindows(kit, second));
  const rows = moves.flatMap((move, first): CancelRow[] => {
    const found = tried.cancels[first];
    if (!found) return [];
    const cells = moves.map((_, second): CancelCell => {
      const lines = listCellLines(found, second);
      const at = windows[second]![first]!;
      const isOpen = lines.length > 0;
      const look = at >= 0 ? (isOpen ? "window" : "never") : isOpen ? "free" : "none";
      return { lines, at, look: look === "free" && isHeldBack(kit, first, second) ? "window" : look };
    });
    return [{ move, first, frames: found.frames, cells }];
  });
  const untried = moves.filter(({ frames, off }, m) => frames && !off && !tried.cancels[m]);
  return { rows, untried: untried.map(({ name }) => name) };
}
