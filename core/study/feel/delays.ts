import { TICKS } from "../../time/clock";
import { clockOfTrace } from "../../time/takeClock";
import { keyFrame, keySource, type Program } from "../../run/program";
import { edgeCountOf, edgeOf } from "../../trace/notes/edgeList";
import type { Trace } from "../../trace/trace";
import type { MoveRequest } from "../outcomes/readOutcomes";

/** How long a performed move was in coming, in frames from its decisive press, and what that was spent on. */
export interface Delay {
  readonly move: number;
  /** The frame of the last press edge that the request is made of, with its control; and of the performance. */
  readonly control: number;
  readonly press: number;
  readonly frame: number;
  readonly total: number;
  /** Waiting to be sure (a hold, a last tap), waiting in memory, and what slowed time added to either. */
  readonly pattern: number;
  readonly memory: number;
  readonly slow: number;
}

/**
 * Returns the delay of every performed request, in order of the performances. `pattern`: from the decisive press to the
 * request, `memory`: from there to the performance, both by the rule's own clock; `slow`: the frames that a hit stop or slow
 * motion added, less than 0 where fast time took some away. A request made again while held has no press of its frame and
 * is left out. `requests`: those of the whole trace (see readOutcomes).
 */
export function listDelays(program: Program, trace: Trace, requests: readonly MoveRequest[]): Delay[] {
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
    if (press < 0) continue;
    const { isMemoryReal, pattern: asks } = program.moves[move]!;
    const pattern = passed(press, made, program.patterns[asks]!.isReal);
    const memory = passed(made, frame, isMemoryReal);
    const total = frame - press;
    delays.push({ move, control, press, frame, total, pattern, memory, slow: total - pattern - memory });
  }
  return delays;
}
