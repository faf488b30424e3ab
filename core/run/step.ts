import { stepGates } from "../gates/stepGates";
import type { FrameInput } from "../input/frameInput";
import { stepControls } from "../input/stepControls";
import { logForCarrying } from "../modes/carryPresses";
import { noteKept, stepHiding } from "../modes/hiding";
import { stepModes } from "../modes/stepModes";
import { noteParts } from "../moves/noteParts";
import { wakeForRequest } from "../moves/readiness";
import { requestStride } from "../moves/requests";
import { noteWaits } from "../moves/noteWaits";
import { isAnyAskingAgain, stepMoves } from "../moves/stepMoves";
import { stepPatterns } from "../patterns/stepPatterns";
import { judgePrompts } from "../prompts/judgePrompts";
import { stepPrompts } from "../prompts/stepPrompts";
import { note, put, SPEED, type Trace } from "../trace/trace";
import { NEVER, type Program } from "../program/program";
import { framesToWake, isDue, restsNext, setAlarm } from "../program/sleep";
import { HIDDEN, type State } from "../program/state";

/** Returns whether any prompt is shown, has just ended, or waits for its time. */
function arePromptsBusy(program: Program, state: State): boolean {
  for (let p = 0; p < program.prompts.length; p++) {
    if (state.promptStage[p] !== HIDDEN || state.outcomeFrame[p] === state.frame) return true;
    if (program.prompts[p]!.startsAtTicks !== NEVER && state.promptAtPassed[p] === 0) return true;
  }
  return false;
}

/** Returns whether nothing can happen before the next wake time unless a control, a gate or the speed changes. */
function findQuiet(program: Program, state: State): boolean {
  if (
    state.isAnyAwake ||
    state.isStirred ||
    state.isHiddenStale ||
    state.lingering > 0 ||
    isAnyAskingAgain(program, state)
  )
    return false;
  if (program.gates.length > 0 && !state.areGatesAtRest) return false;
  return !arePromptsBusy(program, state);
}

/** Sets the wake times of a state that has just become quiet. */
function setAlarms(program: Program, state: State): void {
  setAlarm(state);
  const stride = requestStride(program);
  for (let r = 0; r < state.requestCount; r++) wakeForRequest(program, state, r * stride);
}

/**
 * Skips up to `most` frames on which no input changes: as many as come before anything can happen by time. Only the clocks
 * advance. Returns the number of frames skipped, 0 if the next one must be stepped. Equivalent to stepping each of them
 * (tested).
 */
export function passOver(program: Program, state: State, trace: Trace, most: number): number {
  if (!state.isQuiet || !restsNext(state)) return 0;
  const frames = most === 1 ? 1 : Math.min(most, framesToWake(state));
  state.frame += frames;
  state.gameTicks += frames * state.speedPercent;
  trace.frames = state.frame + 1;
  noteWaits(program, state, trace);
  return frames;
}

/**
 * Steps one frame, the next after `state.frame`. Changes only `state` and `trace`. Order within a frame:
 * clocks; controls (values, cleaning, edges); gates (painted, by stage, timelines and prompts, then derived);
 * mode; prompts (run out, shown, opened); patterns in kit order; prompts judged; requests, moves, losses. A
 * quiet frame only advances the clocks and allocates nothing. Source: frame rules, section 3. Example, with the
 * input of a take:
 *
 *     const [state, trace] = [createState(program), createTrace(program.rateHz)];
 *     const cursor = createInputCursor(program, readTake(program, take));
 *     for (let frame = 0; frame < frames; frame++) step(program, state, loadInput(cursor, frame), trace);
 */
export function step(program: Program, state: State, input: FrameInput, trace: Trace): void {
  state.frame++;
  if (state.frame > 0) state.gameTicks += input.speedPercent;
  trace.frames = state.frame + 1;
  const isUnchanged =
    input.changeCount === 0 && input.gateChangeCount === 0 && input.speedPercent === state.speedPercent;
  if (state.isQuiet && isUnchanged && !isDue(state)) return noteWaits(program, state, trace);
  state.hasFires = false;
  if (state.speedPercent !== input.speedPercent) {
    state.speedPercent = input.speedPercent;
    note(trace, state.frame, SPEED, 0);
    put(trace, state.speedPercent);
  }
  stepControls(program, state, input, trace);
  stepGates(program, state, input, trace);
  if (program.carries) logForCarrying(program, state);
  stepModes(program, state, trace);
  if (program.prompts.length > 0) stepPrompts(program, state, trace);
  if (program.againMoves.length > 0) state.phaseWas.set(state.phase);
  if (program.hides) {
    stepHiding(program, state);
    if (state.isStirred) noteKept(program, state, trace);
  }
  stepPatterns(program, state, trace);
  if (program.prompts.length > 0) judgePrompts(program, state, trace);
  if (program.moves.length > 0) {
    stepMoves(program, state, trace);
    noteParts(program, state, trace);
    noteWaits(program, state, trace);
  }
  if (program.promptsOpenGates && arePromptsBusy(program, state)) state.areGatesAtRest = false;
  state.isQuiet = findQuiet(program, state);
  if (state.isQuiet) setAlarms(program, state);
}
