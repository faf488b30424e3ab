import type { InputColumns } from "../input/inputColumns";
import { TICKS } from "./clock";

/** The game clock of a whole take, looked up anywhere: for what is drawn, not for stepping. */
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

/** The game clock of a take already read into columns. Source: frame rules, section 1. */
export function createTakeClock(
  columns: Pick<InputColumns, "speedFrame" | "speedPercent"> | undefined,
): TakeClock {
  const frames = columns?.speedFrame ?? new Uint32Array(0);
  const percent = columns?.speedPercent ?? new Uint16Array(0);
  if (frames.length === 0)
    return {
      ticksAt: frame => frame * TICKS,
      frameAtAge: (fromFrame, ageTicks) => fromFrame + Math.ceil(ageTicks / TICKS),
      speedAt: () => TICKS,
    };
  /** Ticks passed at the end of the frame before each change. */
  const before = new Float64Array(frames.length);
  before[0] = (frames[0]! - 1) * TICKS;
  for (let k = 1; k < frames.length; k++)
    before[k] = before[k - 1]! + (frames[k]! - frames[k - 1]!) * percent[k - 1]!;
  const ticksAt = (frame: number) => {
    const k = lastAt(frames, frame);
    const since = k < 0 ? frame * TICKS : before[k]! + (frame - frames[k]! + 1) * percent[k]!;
    return since - startTicks;
  };
  // A speed in force from frame 0 on has no tick(0) to count.
  const startTicks = frames[0] === 0 ? before[0]! + percent[0]! : 0;
  const frameAtAge = (fromFrame: number, ageTicks: number) => {
    const wanted = ticksAt(fromFrame) + ageTicks;
    let frame = fromFrame;
    for (let k = lastAt(frames, fromFrame); ; k++) {
      const speed = k < 0 ? TICKS : percent[k]!;
      const ends = k + 1 < frames.length ? frames[k + 1]! - 1 : Infinity;
      const missing = wanted - ticksAt(frame);
      if (missing <= 0) return frame;
      const reached = speed === 0 ? Infinity : frame + Math.ceil(missing / speed);
      if (reached <= ends) return reached;
      if (ends === Infinity) return Infinity;
      frame = Math.max(frame, ends);
    }
  };
  return {
    ticksAt,
    frameAtAge,
    speedAt: frame => (lastAt(frames, frame) < 0 ? TICKS : percent[lastAt(frames, frame)]!),
  };
}
