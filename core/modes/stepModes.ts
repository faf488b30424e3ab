import { reachedOf, resetPattern } from "../patterns/stepPattern";
import { failPrompt } from "../prompts/promptState";
import { loseRequestsOfMove } from "../moves/requests";
import { lapse } from "../patterns/fire";
import type { Program, SwitchProgram } from "../program/program";
import { AWAKE, FORMING, HIDDEN, IDLE, type State } from "../program/state";
import { MODE, note, PHASE, put, type Trace } from "../trace/trace";

function applies(state: State, change: SwitchProgram): boolean {
  if (change.gate < 0) return state.frame > 0 && state.performedFrame[change.move] === state.frame - 1;
  const isOpen = state.gateOpen[change.gate] === 1;
  return isOpen === change.turnsOpen && isOpen !== (state.gateWas[change.gate] === 1);
}

/** Retires rules that are inactive in the new mode: patterns lapse, requests are lost, prompts fail. */
function retire(program: Program, state: State, trace: Trace, to: number): void {
  for (let i = 0; i < program.patterns.length; i++) {
    const pattern = program.patterns[i]!;
    if (pattern.isOff || pattern.activeIn[to] || !pattern.activeIn[state.mode]) continue;
    const before = state.phase[i]!;
    if (before === FORMING) lapse(state, trace, i, "mode", reachedOf(pattern, state));
    resetPattern(program, state, i);
    if (before === IDLE) continue;
    note(trace, state.frame, PHASE, i);
    put(trace, IDLE);
  }
  for (let m = 0; m < program.moves.length; m++) {
    if (!program.moves[m]!.activeIn[to]) loseRequestsOfMove(program, state, trace, m, "mode");
  }
  for (let p = 0; p < program.prompts.length; p++) {
    if (!program.prompts[p]!.activeIn[to] && state.promptStage[p] !== HIDDEN)
      failPrompt(program, state, trace, p, "mode");
  }
}

/**
 * Activates rules of the new mode. They see controls already down as up until released; a mode that carries
 * replays the presses for them.
 */
function welcome(program: Program, state: State, to: number): void {
  const controls = program.controls.length;
  for (let i = 0; i < program.patterns.length; i++) {
    const pattern = program.patterns[i]!;
    if (pattern.isOff || !pattern.activeIn[to] || pattern.activeIn[state.mode]) continue;
    state.awake[i] = AWAKE;
    if (program.modes[to]!.carry) state.arrives[i] = 1;
    else for (let c = 0; c < controls; c++) if (state.was[c] === 1) state.veiled[i * controls + c] = 1;
  }
}

/**
 * Step 4 of a frame: the first switch that applies changes the mode, at most once per frame. A gate switches
 * on the frame it changes, a move on the frame after. The mode is noted on frame 0 and on each change.
 */
export function stepModes(program: Program, state: State, trace: Trace): void {
  if (program.modes.length === 0) return;
  let to = state.mode;
  for (let k = 0; k < program.switches.length; k++) {
    if (!applies(state, program.switches[k]!)) continue;
    to = program.switches[k]!.to;
    break;
  }
  if (to !== state.mode) {
    note(trace, state.frame, MODE, to);
    retire(program, state, trace, to);
    welcome(program, state, to);
    state.mode = to;
    state.isHiddenStale = true;
    state.areGatesAtRest = false;
  } else if (state.frame === 0) note(trace, 0, MODE, to);
}
