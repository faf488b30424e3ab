import type { Batch } from "./messages";

/** A message to the hosts, as it was sent, with the frames it is about. */
interface Sent {
  readonly text: string;
  readonly take: number;
  readonly sentMs: number;
  /** The last frame in a batch; Infinity for the end of a take. */
  readonly toFrame: number;
  readonly isBatch: boolean;
}

/** How long messages are held for hosts that come back, and how much text at most. */
const HELD_MS = 20 * 60_000;
const HELD_LETTERS = 64 * 1024 * 1024;

/** The messages of the last 20 minutes, for hosts that were away. */
export interface RecentBatches {
  readonly add: (sent: Sent) => void;
  /** Returns what a host misses that has every frame of a take before `from`. */
  readonly since: (take: number, from: number) => string[];
  readonly forget: (nowMs: number) => void;
}

/** Returns a batch without the frames and events before `from`. */
function trim(text: string, from: number, kitFrameOf: (f: number) => number): string {
  const batch = JSON.parse(text) as Batch;
  if (batch.from >= from) return text;
  const first = kitFrameOf(from);
  return JSON.stringify({
    ...batch,
    from,
    frames: batch.frames.filter(({ f }) => f >= from),
    events: batch.events.filter(({ f }) => f >= first),
  });
}

/** Creates an empty list. `kitFrameOf` returns the frame of the kit on which a frame of the game lands. */
export function createRecentBatches(kitFrameOf: (f: number) => number): RecentBatches {
  let held: Sent[] = [];
  let first = 0;
  let letters = 0;
  return {
    add(sent) {
      held.push(sent);
      letters += sent.text.length;
    },
    since: (take, from) =>
      held
        .slice(first)
        .filter(sent => sent.take > take || (sent.take === take && sent.toFrame >= from))
        .map(({ text, take: own, isBatch }) =>
          isBatch && own === take ? trim(text, from, kitFrameOf) : text,
        ),
    forget(nowMs) {
      while (first < held.length && (held[first]!.sentMs < nowMs - HELD_MS || letters > HELD_LETTERS))
        letters -= held[first++]!.text.length;
      if (first < 1024 || first * 2 < held.length) return;
      held = held.slice(first);
      first = 0;
    },
  };
}
