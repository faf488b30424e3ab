import { levelAt, ratioAt, valueAt, type Growth } from "../growth";
import { isAnyPressed, isDown, isPressed, nowTicks, pressTicks } from "../../program/sight";
import type { Program } from "../../program/program";
import type { ChargeProgram } from "./program";
import { sleepUntil } from "../../program/sleep";
import { FORMING, IDLE, SUSTAINED, type State } from "../../program/state";
import { TICKS } from "../../time/clock";
import type { Trace } from "../../trace/trace";
import { firePress, lapse, setPhase, type PatternStepper } from "../fire";

/** Cell: the stage of the press. */
const STAGE = 0;
const NONE = 0;
const GROWING = 1;
const SPENT = 2;

/**
 * Returns the growth of a charge: clamp((age − from) ÷ (full − from), 0, 1) through its curve onto its
 * output. Source: frame rules, section 4.
 */
export function chargeGrowth(pattern: ChargeProgram): Growth {
  const { isReal, fromTicks, fullTicks, easing, levels, low, high } = pattern;
  return { isReal, fromTicks, fullTicks, easing, levels, output: { low, high } };
}

function discharge(
  program: Program,
  pattern: ChargeProgram,
  state: State,
  trace: Trace,
  i: number,
  ageTicks: number,
) {
  const growth = chargeGrowth(pattern);
  firePress(
    program,
    state,
    trace,
    i,
    pattern.control,
    ageTicks / TICKS,
    ratioAt(growth, ageTicks),
    levelAt(growth, ageTicks),
    valueAt(growth, ageTicks),
  );
}

/** Steps a growing charge on a frame after its press; returns its next stage. */
function grow(program: Program, pattern: ChargeProgram, state: State, trace: Trace, i: number): number {
  const { control, fire } = pattern;
  const ageTicks = nowTicks(pattern, state) - pressTicks(pattern, state, control);
  const isHeld = isDown(program, state, i, control);
  if (ageTicks > pattern.limitTicks) {
    lapse(state, trace, i, "too-long");
    return NONE;
  }
  if (fire !== "release" && ageTicks >= pattern.fullTicks) {
    discharge(program, pattern, state, trace, i, ageTicks);
    return isHeld ? SPENT : NONE;
  }
  if (isHeld) return GROWING;
  if (fire === "full" || ageTicks < pattern.minTicks) lapse(state, trace, i, "too-short");
  else discharge(program, pattern, state, trace, i, ageTicks);
  return NONE;
}

export const chargeStepper: PatternStepper<ChargeProgram> = {
  step(program, pattern, state, trace, i) {
    const { control, base } = pattern;
    const cells = state.cells;
    let stage = cells[base + STAGE]!;
    const begins = isPressed(program, state, i, control);
    if (begins) stage = GROWING;
    if (stage === GROWING && isAnyPressed(program, state, i, pattern.cancel)) {
      lapse(state, trace, i, "cancelled");
      stage = NONE;
    } else if (stage === GROWING && !begins) stage = grow(program, pattern, state, trace, i);
    else if (stage === SPENT && !isDown(program, state, i, control)) stage = NONE;
    cells[base + STAGE] = stage;
    setPhase(state, i, stage === GROWING ? FORMING : stage === SPENT ? SUSTAINED : IDLE);
    if (stage === GROWING) {
      const endTicks =
        pattern.fire === "release" ? pattern.limitTicks : Math.min(pattern.limitTicks, pattern.fullTicks);
      sleepUntil(state, i, pressTicks(pattern, state, control) + endTicks);
    }
  },
};
