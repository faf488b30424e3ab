import { parseFrames, type Kit, type Move } from "#core";
import { BLOW_WORDS, formatRanges, type Blow, type Cancels } from "#stage";
import type { FollowWindow, FollowWhen } from "../../edits/cancelEdits";

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
