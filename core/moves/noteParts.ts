import { ageOfTimeline } from "../gates/stepGates";
import type { Program } from "../program/program";
import type { State } from "../program/state";
import { note, PART, PHASED, PHASES, put, type Trace } from "../trace/trace";

const OVER = PHASES.indexOf("over");
const CUT = PHASES.indexOf("cut");

/**
 * Returns the timeline part a slot is in at the end of a frame, as an index into PARTS; 0 if nothing runs.
 */
function partOf(program: Program, state: State, slot: number): number {
  if (state.slotMove[slot]! < 0) return 0;
  const move = program.moves[state.slotMove[slot]!]!;
  let left = ageOfTimeline(move, state, slot);
  if (left < move.startupTicks) return 1;
  left -= move.startupTicks;
  if (left < move.activeTicks) return 2;
  return left - move.activeTicks < move.recoveryTicks ? 3 : 0;
}

/** Returns whether a slot's timeline has begun on this frame. */
function isBegun(state: State, slot: number): boolean {
  return state.slotMove[slot]! >= 0 && state.slotFrame[slot] === state.frame;
}

function notePhase(state: State, trace: Trace, m: number, phase: number): void {
  note(trace, state.frame, PHASED, m);
  put(trace, phase);
}

/** Notes the phases of one move on this frame; `part` is the part that its slot is in now. */
function notePhases(program: Program, state: State, trace: Trace, m: number, part: number): void {
  const { slot } = program.moves[m]!;
  const isRunning = state.slotPhased[slot] === m;
  if (!isBegun(state, slot)) {
    if (isRunning && part !== state.slotPart[slot]) notePhase(state, trace, m, part === 0 ? OVER : part - 1);
    return;
  }
  if (isRunning) notePhase(state, trace, m, CUT);
  if (state.slotOwner[slot] === m && part > 0) notePhase(state, trace, m, part - 1);
}

/**
 * Notes, after the moves of a frame, each change of a timeline's part, so that the tape draws what ran, and the phases of
 * moves in kit order. Parts of zero length are skipped. Source: frame rules, section 9.
 */
export function noteParts(program: Program, state: State, trace: Trace): void {
  let hasChanged = false;
  for (let s = 0; s < program.slots.length; s++) {
    const part = partOf(program, state, s);
    if (part === state.slotPart[s] && !isBegun(state, s)) continue;
    hasChanged = true;
    note(trace, state.frame, PART, state.slotOwner[s]!);
    put(trace, part);
  }
  if (!hasChanged) return;
  for (let m = 0; m < program.moves.length; m++)
    notePhases(program, state, trace, m, partOf(program, state, program.moves[m]!.slot));
  for (let s = 0; s < program.slots.length; s++) {
    state.slotPart[s] = partOf(program, state, s);
    state.slotPhased[s] = state.slotPart[s]! > 0 ? state.slotOwner[s]! : -1;
  }
}
