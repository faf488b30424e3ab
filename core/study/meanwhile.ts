import type { Program } from "../run/program";
import { TICKS } from "../time/clock";
import { clockOfTrace } from "../time/takeClock";
import {
  LOST,
  PART,
  PARTS,
  PERFORMED,
  PERFORMED_BY,
  REQUEST,
  type PerformedBy,
  type Trace,
} from "../trace/trace";

/** A frame on which something of a slot was asked for while a move's timeline ran in it. */
export interface Meanwhile {
  /** How old the timeline was, in frames of the move's own clock. */
  readonly at: number;
  readonly frame: number;
  /** The best that came of what was asked for on that frame: a press that one move took is not lost because others gave way. */
  readonly became: PerformedBy | "lost" | "waiting";
}

interface Asked {
  readonly at: number;
  readonly frame: number;
  became: Meanwhile["became"];
}

const RANKS: readonly Meanwhile["became"][] = ["lost", "waiting", "both", "coyote", "buffer", "direct"];

/**
 * Every frame on which a move of the same slot was asked for while one move's timeline ran, in order, with the best that
 * came of it, as the core noted it. The very frame of the performance is the press that performed it, and not meanwhile.
 */
export function listMeanwhile(program: Program, trace: Trace, move: number): Meanwhile[] {
  const { slot, isReal, startupTicks, activeTicks, recoveryTicks } = program.moves[move]!;
  if (startupTicks + activeTicks + recoveryTicks === 0) return [];
  const clock = clockOfTrace(trace);
  const ageAt = (frame: number, since: number) =>
    isReal ? frame - since : Math.floor((clock.ticksAt(frame) - clock.ticksAt(since)) / TICKS);
  const found: Asked[] = [];
  /** Requests that are not over, by frame and move; one of a frame's is the one that last came about for it. */
  const open = new Map<number, Asked>();
  let since = -1;
  for (let i = 0; i < trace.count; i++) {
    const kind = trace.kind[i];
    const subject = trace.subject[i]!;
    if (kind !== PART && kind !== REQUEST && kind !== PERFORMED && kind !== LOST) continue;
    if (program.moves[subject]!.slot !== slot) continue;
    const frame = trace.frame[i]!;
    const first = trace.payload[trace.at[i]!]!;
    if (kind === PART) {
      // It is over, or another move in the slot has cut it off.
      if ((subject === move) === (PARTS[first] === "none")) since = -1;
    } else if (kind === REQUEST) {
      if (since < 0 || frame <= since) continue;
      const last = found.at(-1);
      const asked: Asked = last?.frame === frame ? last : { at: ageAt(frame, since), frame, became: "lost" };
      if (asked !== last) found.push(asked);
      if (asked.became === "lost") asked.became = "waiting";
      open.set(frame * program.moves.length + subject, asked);
    } else {
      const key = first * program.moves.length + subject;
      const asked = open.get(key);
      open.delete(key);
      if (asked) {
        const isOther = [...open.values()].includes(asked);
        const became =
          kind === LOST ? (isOther ? "waiting" : "lost") : PERFORMED_BY[trace.payload[trace.at[i]! + 1]!]!;
        const isBetter = RANKS.indexOf(became) > RANKS.indexOf(asked.became);
        if (isBetter || asked.became === "waiting") asked.became = became;
      }
      if (kind === PERFORMED && subject === move) since = frame;
    }
  }
  return found;
}
