import { carryPresses } from "../modes/carryPresses";
import type { PatternBase, Program } from "../program/program";
import { nowTicks } from "../program/sight";
import { ASLEEP, AWAKE, FIRED, TIMED, type State } from "../program/state";
import { note, PHASE, put, type Trace } from "../trace/trace";
import { stepPattern } from "./stepPattern";

/** Sees to it that frames are skipped no further than to the wake time of pattern `i`. */
function setTimer({ isReal }: PatternBase, state: State, i: number): void {
  const wake = state.wakeTicks[i]!;
  if (isReal) state.patternsWakeReal = Math.min(state.patternsWakeReal, wake);
  else state.patternsWakeGame = Math.min(state.patternsWakeGame, wake);
}

/**
 * Step 6 of a frame: steps every active pattern, in kit order. A sleeping pattern (nothing it watches has
 * changed, and time alone cannot affect it before its wake time) is skipped and keeps its phase. Changes of phase are
 * noted for the tape.
 */
export function stepPatterns(program: Program, state: State, trace: Trace): void {
  const { patterns } = program;
  const { awake } = state;
  state.isAnyAwake = false;
  state.patternsWakeGame = Infinity;
  state.patternsWakeReal = Infinity;
  for (let i = 0; i < patterns.length; i++) {
    if (awake[i] === ASLEEP) continue;
    const pattern = patterns[i]!;
    if (pattern.isOff || !pattern.activeIn[state.mode]) continue;
    if (awake[i] === TIMED && nowTicks(pattern, state) < state.wakeTicks[i]!) {
      setTimer(pattern, state, i);
      continue;
    }
    const before = state.phase[i]!;
    if (state.arrives[i] === 1) {
      carryPresses(program, state, trace, i);
      state.phaseWas[i] = state.phase[i]!;
    }
    stepPattern(program, state, trace, i, state.phase[i]!);
    if (awake[i] === AWAKE) state.isAnyAwake = true;
    else if (awake[i] === TIMED) setTimer(pattern, state, i);
    const phase = state.phase[i]!;
    // A pattern may fire on two frames in a row, and a gate counts both.
    if (program.gatesFollowPatterns && (phase !== before || phase === FIRED)) state.areGatesAtRest = false;
    if (phase === before) continue;
    note(trace, state.frame, PHASE, i);
    put(trace, phase);
  }
}
