import type { Program, StickProgram } from "../program/program";
import { AWAKE, type State } from "../program/state";
import { EDGE, note, put, type Trace } from "../trace/trace";
import type { FrameInput } from "./frameInput";

/** Cleans two opposite controls held together according to the stick's rule. */
function cleanPair(state: State, opposites: StickProgram["opposites"], a: number, b: number): void {
  if (state.raw[a] === 0 || state.raw[b] === 0) return;
  const since = state.rawPressFrame[a]! - state.rawPressFrame[b]!;
  const isTie = opposites === "neutral" || since === 0;
  const keepsA = opposites === "latest" ? since > 0 : since < 0;
  if (isTie || !keepsA) state.next[a] = 0;
  if (isTie || keepsA) state.next[b] = 0;
}

/**
 * Step 1 of a frame: applies the changes, cleans opposite directions, notes every edge of the cleaned states,
 * and wakes the patterns that watch a changed control. The clock must already be at this frame.
 */
export function stepControls(program: Program, state: State, input: FrameInput, trace: Trace): void {
  if (state.isStirred) {
    state.was.set(state.down);
    state.isStirred = false;
  }
  if (input.changeCount === 0) return;
  for (let k = 0; k < input.changeCount; k++) {
    const change = input.changes[k]!;
    const control = change >> 1;
    state.raw[control] = change & 1;
    if ((change & 1) === 1) state.rawPressFrame[control] = state.frame;
  }
  state.next.set(state.raw);
  for (let s = 0; s < program.sticks.length; s++) {
    const stick = program.sticks[s]!;
    cleanPair(state, stick.opposites, stick.up, stick.down);
    cleanPair(state, stick.opposites, stick.left, stick.right);
  }
  for (let c = 0; c < program.controls.length; c++) {
    if (state.next[c] === state.down[c]) continue;
    state.down[c] = state.next[c]!;
    state.isStirred = true;
    if (state.down[c] === 1) {
      state.pressFrame[c] = state.frame;
      state.pressTicks[c] = state.gameTicks;
    }
    note(trace, state.frame, EDGE, c);
    put(trace, state.down[c]!);
    const watchers = program.watchers[c]!;
    for (let w = 0; w < watchers.length; w++) state.awake[watchers[w]!] = AWAKE;
  }
}
