import { speedNote } from "../trace/notes/inner";
import type { Trace } from "../trace/trace";
import { TICKS } from "./clock";

/** The game clock of a run, looked up anywhere: for what is drawn, not for stepping. */
export interface TakeClock {
  /** T(frame), in ticks: the sum of tick(1) … tick(frame). Frame 0 gives 0. */
  readonly ticksAt: (frame: number) => number;
  /** The first frame at which an age counted from a frame has reached so many ticks; Infinity if a freeze never ends. */
  readonly frameAtAge: (fromFrame: number, ageTicks: number) => number;
  /** Percent of full speed in force on a frame. */
  readonly speedAt: (frame: number) => number;
}

/** The place of the last entry at or before a frame, −1 when there is none. */
function lastAt(frames: ArrayLike<number>, frame: number): number {
  let low = 0;
  let high = frames.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (frames[middle]! > frame) high = middle;
    else low = middle + 1;
  }
  return low - 1;
}

/** A clock that is told of changes of speed as they come, in frame order. */
export interface GrowingClock extends TakeClock {
  readonly turn: (frame: number, percent: number) => void;
}

/** The game clock, at full speed until it is told otherwise. Source: frame rules, section 1. */
export function createGrowingClock(): GrowingClock {
  const frames: number[] = [];
  const percents: number[] = [];
  /** T at the end of the frame before each change. */
  const before: number[] = [];
  const speedAfter = (k: number) => (k < 0 ? TICKS : percents[k]!);
  const ticksAt = (frame: number) => {
    const k = lastAt(frames, frame);
    return k < 0 ? frame * TICKS : before[k]! + (frame - frames[k]! + 1) * percents[k]!;
  };
  return {
    ticksAt,
    frameAtAge(fromFrame, ageTicks) {
      const wanted = ticksAt(fromFrame) + ageTicks;
      let frame = fromFrame;
      for (let k = lastAt(frames, fromFrame); ; k++) {
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
    speedAt: frame => speedAfter(lastAt(frames, frame)),
    turn(frame, percent) {
      // A speed in force from frame 0 on has no tick(0) to count: T(0) is nothing.
      before.push(frame === 0 ? -percent : ticksAt(frame - 1));
      frames.push(frame);
      percents.push(percent);
    },
  };
}

/** The clock that a run really had, hit stops and all, read off its trace. */
export function clockOfTrace(trace: Trace): TakeClock {
  const clock = createGrowingClock();
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === speedNote.code) clock.turn(trace.frame[i]!, speedNote.percent(trace, i));
  return clock;
}

/** Returns the frames that passed from one frame to another by a rule's clock; fractions in slow motion. `isReal`: its clock is the real one. */
export function framesBetween(clock: TakeClock, isReal: boolean, from: number, to: number): number {
  return isReal ? to - from : (clock.ticksAt(to) - clock.ticksAt(from)) / TICKS;
}

/** Returns the first frame at which an age counted from a frame by a rule's clock has reached so many ticks; Infinity if it never does. */
export function frameAtAge(clock: TakeClock, isReal: boolean, from: number, ageTicks: number): number {
  return isReal ? from + Math.ceil(ageTicks / TICKS) : clock.frameAtAge(from, ageTicks);
}
