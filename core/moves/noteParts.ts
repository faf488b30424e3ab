import { momentOn, nowOn } from "../program/moments";
import type { Program } from "../program/program";
import type { State } from "../program/state";
import { note, PART, put, type Trace } from "../trace/trace";

/**
 * Returns the timeline part a slot is in at the end of a frame, as an index into PARTS; 0 if nothing runs.
 */
function partOf(program: Program, state: State, slot: number): number {
  if (state.slotMove[slot]! < 0) return 0;
  const move = program.moves[state.slotMove[slot]!]!;
  const since = momentOn(move.isReal, state.slotFrame[slot]!, state.slotTicks[slot]!);
  let left = nowOn(move.isReal, state) - since;
  if (left < move.startupTicks) return 1;
  left -= move.startupTicks;
  if (left < move.activeTicks) return 2;
  return left - move.activeTicks < move.recoveryTicks ? 3 : 0;
}

/**
 * Notes, after the moves of a frame, each change of a timeline's part, so that the tape draws what ran. Parts
 * of zero length are skipped.
 */
export function noteParts(program: Program, state: State, trace: Trace): void {
  for (let s = 0; s < program.slots.length; s++) {
    const isNew = state.slotMove[s]! >= 0 && state.slotFrame[s] === state.frame;
    const part = partOf(program, state, s);
    if (part === state.slotPart[s] && !isNew) continue;
    state.slotPart[s] = part;
    note(trace, state.frame, PART, state.slotOwner[s]!);
    put(trace, part);
  }
}
