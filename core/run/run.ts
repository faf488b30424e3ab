import {
  createInputCursor,
  loadInput,
  readTake,
  type InputColumns,
  type InputCursor,
} from "../input/inputColumns";
import type { Take } from "../input/takeSchema";
import { createTrace, type Trace } from "../trace/trace";
import type { Program } from "../program/program";
import { createState, type State } from "../program/state";
import { passOver, step } from "./step";

/**
 * Runs a take already read into columns, from before frame 0 to its end, and returns the trace. Takes the
 * same steps as live play. `waits`: see Trace.
 */
export function run(program: Program, columns: InputColumns, waits?: number[]): Trace {
  const trace = createTrace(program.rateHz, 1024, waits);
  runInto(program, columns, trace);
  return trace;
}

/** Runs like `run`, appending to a trace the caller owns (and clears before reuse). */
export function runInto(program: Program, columns: InputColumns, trace: Trace): void {
  runOn(program, createState(program), createInputCursor(program, columns), columns, trace, columns.frames);
  trace.frames = columns.frames;
}

/**
 * Continues a run from a state up to a frame (exclusive), so that long runs can be sliced. Skips quiet frames
 * as a block, up to the next wake time.
 */
export function runOn(
  program: Program,
  state: State,
  cursor: InputCursor,
  columns: InputColumns,
  trace: Trace,
  upTo: number,
): void {
  const end = Math.min(upTo, columns.frames);
  for (let frame = state.frame + 1; frame < end; frame = state.frame + 1) {
    const most = Math.min(cursor.nextFrame, end) - frame;
    if (most <= 0 || passOver(program, state, trace, most) === 0)
      step(program, state, loadInput(cursor, frame), trace);
  }
}

/**
 * Evaluates a take: reads it at the program's rate and steps every frame. Deterministic. Example:
 * `evaluate(program, take)` returns the trace that `formatTrace` writes.
 */
export function evaluate(program: Program, take: Take): Trace {
  return run(program, readTake(program, take));
}
