import { evaluateEasing } from "../../curve/easing";
import { isAnyPressed, isDown, isPressed, nowTicks, pressTicks } from "../../run/hands";
import type { ChargeProgram, Program } from "../../run/program";
import { FIRED, FORMING, IDLE, LAPSED, SUSTAINED, type State } from "../../run/state";
import { TICKS } from "../../time/clock";
import type { Trace } from "../../trace/trace";
import { firePress, lapse, settle, type PatternStepper } from "../fire";

/** Cell: how far the press has come. */
const STAGE = 0;
const NONE = 0;
const GROWING = 1;
const SPENT = 2;

/** clamp((age − from) ÷ (full − from), 0, 1). Source: frame rules, section 4, charge. */
export function chargeRatio(pattern: ChargeProgram, ageTicks: number): number {
  return Math.min(1, Math.max(0, (ageTicks - pattern.fromTicks) / (pattern.fullTicks - pattern.fromTicks)));
}

/** lo + (hi − lo) × curve(ratio), in the game's own units. Source: frame rules, section 4, charge. */
export function chargeValue(pattern: ChargeProgram, ratio: number): number {
  return pattern.low + (pattern.high - pattern.low) * evaluateEasing(pattern.easing, ratio);
}

/** How many levels an age has reached. A level exactly at the age counts. */
export function chargeLevel(pattern: ChargeProgram, ageTicks: number): number {
  let level = 0;
  for (let k = 0; k < pattern.levels.length; k++) if (pattern.levels[k]!.atTicks <= ageTicks) level++;
  return level;
}

function discharge(
  program: Program,
  pattern: ChargeProgram,
  state: State,
  trace: Trace,
  i: number,
  ageTicks: number,
) {
  const ratio = chargeRatio(pattern, ageTicks);
  const level = chargeLevel(pattern, ageTicks);
  firePress(
    program,
    state,
    trace,
    i,
    pattern.control,
    ageTicks / TICKS,
    ratio,
    level,
    chargeValue(pattern, ratio),
  );
}

/** Judges a growing charge on one frame after its press; returns its next stage. */
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
    settle(state, i, stage === GROWING ? FORMING : stage === SPENT ? SUSTAINED : IDLE);
    state.awake[i] = stage === GROWING || state.phase[i] === FIRED || state.phase[i] === LAPSED ? 1 : 0;
  },
};
