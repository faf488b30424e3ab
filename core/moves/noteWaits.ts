import type { Program } from "../program/program";
import type { State } from "../program/state";
import type { Trace } from "../trace/trace";
import { DUE, DUE_TICKS, MADE, memoryNow, MOVE, reasonOfFate, requestStride } from "./requests";
import { reasonOfLoss } from "./stepMoves";

/**
 * Notes what each due request that waits at the end of a frame would be lost for on it, if the run notes waits (see Trace). On a
 * skipped frame it is the same as on the last of them, so it is enough to note that one.
 */
export function noteWaits(program: Program, state: State, { waits, isMuted }: Trace): void {
  if (!waits || isMuted) return;
  const stride = requestStride(program);
  const pool = state.requests;
  for (let r = 0; r < state.requestCount; r++) {
    const at = r * stride;
    if (pool[at + DUE]! < 0) continue;
    const m = pool[at + MOVE]!;
    const age = memoryNow(program.moves[m]!, state) - pool[at + DUE_TICKS]!;
    waits.push(m, pool[at + MADE]!, age, reasonOfFate(reasonOfLoss(program, state, at)));
  }
}
