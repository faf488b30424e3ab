import { isAnyPressed, isDown, isPressed, nowTicks, pressTicks } from "../../program/sight";
import type { Program } from "../../program/program";
import type { HoldProgram } from "./program";
import { sleepUntil } from "../../program/sleep";
import { FORMING, IDLE, SUSTAINED, type State } from "../../program/state";
import type { Trace } from "../../trace/trace";
import { firePress, lapse, setPhase, type PatternStepper } from "../fire";

/** Cells: the stage of the press, and the repeat marks passed. */
const STAGE = 0;
const MARKS = 1;
const NONE = 0;
const GROWING = 1;
const REACHED = 2;

function marksPassed(pattern: HoldProgram, ageTicks: number): number {
  return pattern.everyTicks === 0 ? 0 : Math.floor((ageTicks - pattern.forTicks) / pattern.everyTicks);
}

/** Steps a growing hold on a frame after its press; returns its next stage. */
function grow(program: Program, pattern: HoldProgram, state: State, trace: Trace, i: number): number {
  const { control } = pattern;
  const ageTicks = nowTicks(pattern, state) - pressTicks(pattern, state, control);
  const isHeld = isDown(program, state, i, control);
  if (pattern.onReach) {
    if (ageTicks >= pattern.forTicks) {
      firePress(program, state, trace, i, control);
      state.cells[pattern.base + MARKS] = marksPassed(pattern, ageTicks);
      return isHeld ? REACHED : NONE;
    }
    if (isHeld) return GROWING;
    lapse(state, trace, i, "too-short");
    return NONE;
  }
  if (ageTicks > pattern.maxTicks) {
    lapse(state, trace, i, "too-long");
    return NONE;
  }
  if (isHeld) return GROWING;
  if (ageTicks < pattern.forTicks) lapse(state, trace, i, "too-short");
  else firePress(program, state, trace, i, control);
  return NONE;
}

/** Fires a repeat that is due while the hold continues; returns the next stage. */
function goOn(program: Program, pattern: HoldProgram, state: State, trace: Trace, i: number): number {
  if (!isDown(program, state, i, pattern.control)) return NONE;
  const marks = marksPassed(pattern, nowTicks(pattern, state) - pressTicks(pattern, state, pattern.control));
  if (marks > state.cells[pattern.base + MARKS]!) {
    state.cells[pattern.base + MARKS] = marks;
    firePress(program, state, trace, i, pattern.control);
  }
  return REACHED;
}

/** Returns the age at which a hold that is kept down can fire or lapse next, in ticks. */
function nextAge(pattern: HoldProgram, state: State, stage: number): number {
  if (stage === GROWING) return pattern.onReach ? pattern.forTicks : pattern.maxTicks;
  if (pattern.everyTicks === 0) return Infinity;
  return pattern.forTicks + (state.cells[pattern.base + MARKS]! + 1) * pattern.everyTicks;
}

export const holdStepper: PatternStepper<HoldProgram> = {
  step(program, pattern, state, trace, i) {
    const { control, base } = pattern;
    const cells = state.cells;
    let stage = cells[base + STAGE]!;
    const begins = isPressed(program, state, i, control);
    if (begins) stage = GROWING;
    const repeats = stage === REACHED && pattern.everyTicks > 0 && isDown(program, state, i, control);
    if ((stage === GROWING || repeats) && isAnyPressed(program, state, i, pattern.cancel)) {
      lapse(state, trace, i, "cancelled");
      stage = NONE;
    } else if (stage === GROWING && !begins) stage = grow(program, pattern, state, trace, i);
    else if (stage === REACHED) stage = goOn(program, pattern, state, trace, i);
    cells[base + STAGE] = stage;
    setPhase(state, i, stage === GROWING ? FORMING : stage === REACHED ? SUSTAINED : IDLE);
    if (stage !== NONE)
      sleepUntil(state, i, pressTicks(pattern, state, control) + nextAge(pattern, state, stage));
  },
};
