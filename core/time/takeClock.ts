import { firstAbove } from "./rising";
import { speedNote } from "../trace/notes/inner";
import type { Trace } from "../trace/trace";
import { TICKS } from "./clock";

/** The game clock of a run with random access, for drawing and not for stepping. */
export interface TakeClock {
  /** Returns T(frame) in ticks: the sum of tick(1) … tick(frame). Frame 0 gives 0. */
  readonly ticksAt: (frame: number) => number;
  /**
   * Returns the first frame at which an age counted from a frame reaches so many ticks; Infinity if a freeze
   * never ends.
   */
  readonly frameAtAge: (fromFrame: number, ageTicks: number) => number;
  /** Returns the speed in force on a frame, in percent. */
  readonly speedAt: (frame: number) => number;
}

/** A clock that receives changes of speed as they occur, in frame order. */
export interface GrowingClock extends TakeClock {
  readonly turn: (frame: number, percent: number) => void;
}

/** Creates a game clock at full speed. Source: frame rules, section 1. */
export function createGrowingClock(): GrowingClock {
  const frames: number[] = [];
  const percents: number[] = [];
  /** T at the end of the frame before each change. */
  const before: number[] = [];
  const speedAfter = (k: number) => (k < 0 ? TICKS : percents[k]!);
  const ticksAt = (frame: number) => {
    const k = firstAbove(frames, frame) - 1;
    return k < 0 ? frame * TICKS : before[k]! + (frame - frames[k]! + 1) * percents[k]!;
  };
  return {
    ticksAt,
    frameAtAge(fromFrame, ageTicks) {
      const wanted = ticksAt(fromFrame) + ageTicks;
      let frame = fromFrame;
      for (let k = firstAbove(frames, fromFrame) - 1; ; k++) {
        const speed = speedAfter(k);
        const ends = k + 1 < frames.length ? frames[k + 1]! - 1 : Infinity;
        const missing = wanted - ticksAt(frame);
        if (missing <= 0) return frame;
        const reached = speed === 0 ? Infinity : frame + Math.ceil(missing / speed);
        if (reached <= ends) return reached;
        if (ends === Infinity) return Infinity;
        frame = Math.max(frame, ends);
      }
    },
    speedAt: frame => speedAfter(firstAbove(frames, frame) - 1),
    turn(frame, percent) {
      // A speed in force from frame 0 on has no tick(0) to count: T(0) is 0.
      before.push(frame === 0 ? -percent : ticksAt(frame - 1));
      frames.push(frame);
      percents.push(percent);
    },
  };
}

/** Returns the clock of a run, including hit stops, read from its trace. */
export function clockOfTrace(trace: Trace): TakeClock {
  const clock = createGrowingClock();
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === speedNote.code) clock.turn(trace.frame[i]!, speedNote.percent(trace, i));
  return clock;
}

/**
 * Returns the frames that passed from one frame to another on a rule's clock; fractional in slow motion.
 * `isReal` selects the real clock.
 */
export function framesBetween(clock: TakeClock, isReal: boolean, from: number, to: number): number {
  return isReal ? to - from : (clock.ticksAt(to) - clock.ticksAt(from)) / TICKS;
}

/**
 * Returns the first frame at which an age counted from a frame on a rule's clock reaches so many ticks;
 * Infinity if it never does.
 */
export function frameAtAge(clock: TakeClock, isReal: boolean, from: number, ageTicks: number): number {
  return isReal ? from + Math.ceil(ageTicks / TICKS) : clock.frameAtAge(from, ageTicks);
}
