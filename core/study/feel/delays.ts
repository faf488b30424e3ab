import { TICKS } from "../../time/clock";
import { clockOfTrace } from "../../time/takeClock";
import { keyFrame, keySource, type Program } from "../../program/program";
import { edgeCountOf, edgeOf } from "../../trace/notes/edgeList";
import type { Trace } from "../../trace/trace";
import { dueFrame } from "../dueFrame";
import type { MoveRequest } from "../outcomes/readOutcomes";

/** The delay of a performed move from its decisive press, in frames, and its causes. */
export interface Delay {
  readonly move: number;
  /** The control and frame of the last press edge of the request, and the frame of the performance. */
  readonly control: number;
  readonly press: number;
  readonly frame: number;
  readonly total: number;
  /** Frames spent to be sure (a hold, a last tap, the wait of the move), in the buffer, and added to either by slowed time. */
  readonly pattern: number;
  readonly memory: number;
  readonly slow: number;
}

/**
 * Returns the delay of every performed request, in order of performance. `pattern`: from the decisive press
 * to the frame on which the request came due, `memory`: from there to the performance, both on the rule's own clock; `slow`: the frames
 * added by hit stop or slow motion, negative for fast time. Omits requests repeated while held, which have no
 * press of their own frame, and those across a gap, whose time is not known. `requests` are those of the whole trace (see
 * readOutcomes); `gaps` the frames before which time passed unrecorded (see gapFrames).
 */
export function listDelays(
  program: Program,
  trace: Trace,
  requests: readonly MoveRequest[],
  gaps: readonly number[] = [],
): Delay[] {
  const clock = clockOfTrace(trace);
  const passed = (from: number, to: number, isReal: boolean) =>
    isReal ? to - from : Math.round((clock.ticksAt(to) - clock.ticksAt(from)) / TICKS);
  const delays: Delay[] = [];
  const performed = requests.filter(({ end, isAgain }) => end === "performed" && !isAgain);
  for (const { move, made, frame, note } of performed.sort((a, b) => a.endNote - b.endNote)) {
    let press = -1;
    let control = -1;
    for (let k = 0; k < edgeCountOf(trace, note); k++) {
      const key = edgeOf(trace, note, k);
      if (keyFrame(program, key) < press) continue;
      press = keyFrame(program, key);
      control = keySource(program, key);
    }
    if (press < 0 || gaps.some(gap => press < gap && gap <= frame)) continue;
    const { isMemoryReal, pattern: asks } = program.moves[move]!;
    const due = dueFrame(clock, program.moves[move]!, { made, frame });
    const pattern = passed(press, made, program.patterns[asks]!.isReal) + passed(made, due, isMemoryReal);
    const memory = passed(due, frame, isMemoryReal);
    const total = frame - press;
    delays.push({ move, control, press, frame, total, pattern, memory, slow: total - pattern - memory });
  }
  return delays;
}
