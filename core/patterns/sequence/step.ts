import { isAnyPressed, isDown, nowTicks } from "../../program/sight";
import type { Program } from "../../program/program";
import type { SequenceProgram } from "./program";
import { sleepUntil, stayAwake } from "../../program/sleep";
import { FIRED, FORMING, IDLE, LAPSED, SUSTAINED, type State } from "../../program/state";
import type { Trace } from "../../trace/trace";
import { areAllDown } from "../chord/step";
import { addEdge, beginFire, endFire, lapse, setPhase, type PatternStepper } from "../fire";
import {
  bestMade,
  dropLate,
  EDGES,
  extendChoices,
  findWhole,
  firstEnd,
  isInChoice,
  pruneChoices,
  reportedEdges,
} from "./choices";
import {
  FLOOR,
  HOT,
  isDirectionInForce,
  isDirectionLeft,
  lookAtSticks,
  REACHED,
  storeDirections,
} from "./directions";
import { createStepEdges, findStepEdges } from "./stepEdges";

/** The edges of one step at a time; grows to the widest step. */
let found = createStepEdges(16);

/** Returns whether the input of the last step is still down, so that the fire is sustained. */
function isLastStepDown(program: Program, pattern: SequenceProgram, state: State, i: number): boolean {
  const last = pattern.steps.at(-1)!;
  switch (last.does) {
    case "press":
    case "hold":
      return isDown(program, state, i, last.control);
    case "together":
      return areAllDown(program, state, i, last.controls);
    case "face":
      return !isDirectionLeft(pattern, state, last.slot);
    case "dir":
      return !isDirectionLeft(pattern, state, last.slot) || state.phase[i] === FIRED;
    case "release":
      return false;
  }
}

function fireWhole(
  program: Program,
  pattern: SequenceProgram,
  state: State,
  trace: Trace,
  i: number,
  stride: number,
  row: number,
) {
  const rows = state.choices[pattern.choices]!;
  const from = reportedEdges(pattern, stride, row);
  const count = rows[row * stride + EDGES]!;
  beginFire(state, i);
  for (let k = 0; k < count; k++) addEdge(program, state, i, rows[from + k]!);
  endFire(program, state, trace, i);
}

/** Discards all steps made so far, and all edges up to this frame. */
function useUp(pattern: SequenceProgram, state: State): void {
  state.choiceCount[pattern.choices] = 0;
  state.cells[pattern.base + FLOOR] = state.frame + 1;
}

/**
 * Returns whether a hold or a held direction can become true without a further edge; the sequence must then
 * stay awake.
 */
function mayStillGrow(program: Program, pattern: SequenceProgram, state: State, i: number): boolean {
  if (pattern.isFaced) return true;
  for (let k = 0; k < pattern.heldControls.length; k++)
    if (isDown(program, state, i, pattern.heldControls[k]!)) return true;
  return false;
}

/**
 * Returns whether nothing but its gaps can end an attempt while no control changes. Choices with a least time between steps
 * may also be pruned by time.
 */
function canOnlyEnd(program: Program, pattern: SequenceProgram, state: State, i: number): boolean {
  const count = state.choiceCount[pattern.choices]!;
  if (count === 0 || (count > 1 && pattern.isSpaced)) return false;
  if (program.hides || pattern.sticks.length > 0) return false;
  return state.cells[pattern.base + HOT] === 0 && !mayStillGrow(program, pattern, state, i);
}

export const sequenceStepper: PatternStepper<SequenceProgram> = {
  step(program, pattern, state, trace, i) {
    const cells = state.cells;
    const base = pattern.base;
    const list = pattern.choices;
    const stride = program.choiceStrides[list]!;
    const now = nowTicks(pattern, state);
    if (found.serve.length < pattern.edgeRoom) found = createStepEdges(pattern.edgeRoom);
    lookAtSticks(program, pattern, state, i);
    const choicesBefore = state.choiceCount[list]!;
    const hadChoices = choicesBefore > 0;
    const isWaiting = !state.isStirred && !trace.isMuted && canOnlyEnd(program, pattern, state, i);
    const inTime = dropLate(pattern, state, stride, now);
    if (isWaiting && inTime === choicesBefore) {
      sleepUntil(state, i, firstEnd(pattern, state, stride));
      return setPhase(state, i, FORMING);
    }
    const isBroken = isAnyPressed(program, state, i, pattern.breakers);
    const hadReached = cells[base + REACHED]!;
    let isFirstMade = findStepEdges(program, pattern, state, i, pattern.steps[0]!, found);
    if (isBroken) state.choiceCount[list] = 0;
    else {
      for (let made = 0; made <= bestMade(pattern, state, stride) && made < pattern.steps.length; made++) {
        const isTrue =
          made === 0 ? isFirstMade : findStepEdges(program, pattern, state, i, pattern.steps[made]!, found);
        if (isTrue) extendChoices(pattern, state, stride, made, found, now);
      }
    }
    isFirstMade &&= !isBroken;
    storeDirections(pattern, state, now);
    const whole = state.choiceCount[list] === 0 ? -1 : findWhole(pattern, state, stride);
    // A sequence that has just restarted has already lapsed, cancelled if a cancel was pressed, so nothing on
    // this frame counts.
    const hasLapsed = state.phase[i] === LAPSED;
    if ((hadChoices || isFirstMade || hasLapsed) && isAnyPressed(program, state, i, pattern.cancel)) {
      const reached = Math.max(hadReached, bestMade(pattern, state, stride));
      useUp(pattern, state);
      cells[base + HOT] = 0;
      if (!hasLapsed) lapse(state, trace, i, "cancelled", reached);
    } else if (whole >= 0) {
      fireWhole(program, pattern, state, trace, i, stride, whole);
      useUp(pattern, state);
      cells[base + HOT] = 1;
    } else if (hadChoices && state.choiceCount[list] === 0) {
      cells[base + HOT] = 0;
      lapse(state, trace, i, isBroken && inTime > 0 ? "broken" : "too-slow", hadReached);
    }
    if (state.choiceCount[list]! > 1) pruneChoices(program, pattern, state, i, stride, now);
    if (cells[base + HOT] === 1 && !isLastStepDown(program, pattern, state, i)) cells[base + HOT] = 0;
    const isAlive = state.choiceCount[list]! > 0;
    setPhase(state, i, cells[base + HOT] === 1 ? SUSTAINED : isAlive ? FORMING : IDLE);
    const best = isAlive ? bestMade(pattern, state, stride) : 0;
    cells[base + REACHED] = state.phase[i] === FORMING ? Math.max(hadReached, best) : best;
    if (canOnlyEnd(program, pattern, state, i)) sleepUntil(state, i, firstEnd(pattern, state, stride));
    else if (isAlive || cells[base + HOT] === 1 || mayStillGrow(program, pattern, state, i))
      stayAwake(state, i);
  },
  reset(pattern, state) {
    state.choiceCount[pattern.choices] = 0;
  },
  cancel: useUp,
  reached: ({ base }, { cells }) => cells[base + REACHED]!,
  restart(_program, pattern, state) {
    state.choiceCount[pattern.choices] = 0;
    state.cells[pattern.base + REACHED] = 0;
    state.cells[pattern.base + HOT] = 0;
  },
  remembers: (program, pattern, state, key) =>
    isInChoice(program, pattern, state, key) || isDirectionInForce(program, pattern, state, key),
};
