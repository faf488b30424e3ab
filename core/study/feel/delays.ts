import { TICKS } from "../../time/clock";
import { clockOfTrace } from "../../time/takeClock";
import type { Program } from "../../run/program";
import { PERFORMED, REQUEST, type Trace } from "../../trace/trace";

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
 * The delay of every performed move of a trace, in order. `pattern`: from the decisive press to the request, `memory`: from
 * there to the performance, both by the rule's own clock; `slow`: the frames that a hit stop or slow motion added, and less
 * than 0 where fast time took some away. A move asked for again while held has no press of that frame: it is left out.
 */
export function listDelays(program: Program, trace: Trace): Delay[] {
  const clock = clockOfTrace(trace);
  const passed = (from: number, to: number, isReal: boolean) =>
    isReal ? to - from : Math.round((clock.ticksAt(to) - clock.ticksAt(from)) / TICKS);
  const delays: Delay[] = [];
  const requests = new Map<number, number>();
  for (let i = 0; i < trace.count; i++) {
    const move = trace.subject[i]!;
    if (trace.kind[i] === REQUEST) requests.set(trace.frame[i]! * program.moves.length + move, i);
    if (trace.kind[i] !== PERFORMED) continue;
    const frame = trace.frame[i]!;
    const made = trace.payload[trace.at[i]!]!;
    const request = requests.get(made * program.moves.length + move);
    if (request === undefined) continue;
    const at = trace.at[request]!;
    let press = -1;
    let control = -1;
    for (let k = 1; k <= trace.payload[at]!; k++) {
      const key = trace.payload[at + k]!;
      const edge = Math.floor(key / program.sourceCount);
      if (edge < press) continue;
      press = edge;
      control = key % program.sourceCount;
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
