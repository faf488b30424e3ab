import { carryPresses } from "../modes/carryPresses";
import type { Program } from "../program/program";
import type { State } from "../program/state";
import { note, PHASE, put, type Trace } from "../trace/trace";
import { stepPattern } from "./stepPattern";

/**
 * Step 6 of a frame: steps every active pattern, in kit order. A sleeping pattern (nothing it watches has
 * changed, and time alone cannot affect it) is skipped and keeps its phase. Changes of phase are noted for
 * the tape.
 */
export function stepPatterns(program: Program, state: State, trace: Trace): void {
  const { patterns } = program;
  const { awake } = state;
  state.isAnyAwake = false;
  for (let i = 0; i < patterns.length; i++) {
    if (awake[i] === 0) continue;
    const pattern = patterns[i]!;
    if (pattern.isOff || !pattern.activeIn[state.mode]) continue;
    const before = state.phase[i]!;
    if (state.arrives[i] === 1) {
      carryPresses(program, state, trace, i);
      state.phaseWas[i] = state.phase[i]!;
    }
    stepPattern(program, state, trace, i, state.phase[i]!);
    if (awake[i] === 1) state.isAnyAwake = true;
    const phase = state.phase[i]!;
    if (phase === before) continue;
    note(trace, state.frame, PHASE, i);
    put(trace, phase);
  }
}
