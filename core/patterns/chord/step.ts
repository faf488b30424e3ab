import { momentOn } from "../../program/moments";
import { isAnyPressed, isDown, nowTicks } from "../../program/sight";
import type { Program } from "../../program/program";
import type { ChordProgram } from "./program";
import { sleepUntil } from "../../program/sleep";
import { FORMING, IDLE, SUSTAINED, type State } from "../../program/state";
import type { Trace } from "../../trace/trace";
import { addPress, beginFire, endFire, lapse, setPhase, type PatternStepper } from "../fire";

/**
 * Cells: frame after the last event; whether a complete chord is being held; since when; whether the fired
 * controls are still down.
 */
const AFTER_EVENT = 0;
const HOLDING = 1;
const SINCE = 2;
const HOT = 3;

/**
 * Returns the time between the first and last of the current presses of these controls, on the pattern's
 * clock, in ticks.
 */
export function pressSpread(
  pattern: { readonly isReal: boolean },
  state: State,
  controls: readonly number[],
): number {
  let oldest = Infinity;
  let youngest = -Infinity;
  for (let k = 0; k < controls.length; k++) {
    const control = controls[k]!;
    const at = momentOn(pattern.isReal, state.pressFrame[control]!, state.pressTicks[control]!);
    if (at < oldest) oldest = at;
    if (at > youngest) youngest = at;
  }
  return youngest - oldest;
}

/** Returns whether all of these controls are down, as pattern `i` sees them. */
export function areAllDown(program: Program, state: State, i: number, controls: readonly number[]): boolean {
  for (let k = 0; k < controls.length; k++) if (!isDown(program, state, i, controls[k]!)) return false;
  return true;
}

function finish(state: State, pattern: ChordProgram, isHot: boolean): void {
  state.cells[pattern.base + AFTER_EVENT] = state.frame + 1;
  state.cells[pattern.base + HOLDING] = 0;
  state.cells[pattern.base + HOT] = isHot ? 1 : 0;
}

function fireChord(
  program: Program,
  pattern: ChordProgram,
  state: State,
  trace: Trace,
  i: number,
  isHot: boolean,
) {
  beginFire(state, i);
  for (let k = 0; k < pattern.controls.length; k++) addPress(program, state, i, pattern.controls[k]!);
  endFire(program, state, trace, i);
  finish(state, pattern, isHot);
}

/** Returns whether a control is down that was pressed after the last event. */
function isForming(program: Program, pattern: ChordProgram, state: State, i: number): boolean {
  const afterEvent = state.cells[pattern.base + AFTER_EVENT]!;
  for (let k = 0; k < pattern.controls.length; k++) {
    const control = pattern.controls[k]!;
    if (isDown(program, state, i, control) && state.pressFrame[control]! >= afterEvent) return true;
  }
  return false;
}

/** Returns the number of its controls pressed since the last event and still down. */
export function chordMade({ base, controls }: ChordProgram, state: State): number {
  let made = 0;
  for (let k = 0; k < controls.length; k++) {
    const control = controls[k]!;
    if (state.down[control] === 1 && state.pressFrame[control]! >= state.cells[base + AFTER_EVENT]!) made++;
  }
  return made;
}

/** Returns the share of its length for which a complete chord has been held; undefined while it is not. */
export function chordHeldRatio(pattern: ChordProgram, state: State): number | undefined {
  const { base, forTicks } = pattern;
  if (state.cells[base + HOLDING] !== 1) return undefined;
  return Math.min(1, (nowTicks(pattern, state) - state.cells[base + SINCE]!) / Math.max(1, forTicks));
}

export const chordStepper: PatternStepper<ChordProgram> = {
  step(program, pattern, state, trace, i) {
    const { base, controls } = pattern;
    const cells = state.cells;
    const areDown = areAllDown(program, state, i, controls);
    if (!areDown) cells[base + HOT] = 0;
    if (cells[base + HOLDING] === 1) {
      if (nowTicks(pattern, state) - cells[base + SINCE]! >= pattern.forTicks) {
        fireChord(program, pattern, state, trace, i, areDown);
      } else if (!areDown) {
        lapse(state, trace, i, "too-short");
        finish(state, pattern, false);
      }
    } else if (areDown && isAnyPressed(program, state, i, controls)) {
      if (pressSpread(pattern, state, controls) > pattern.spreadTicks) {
        lapse(state, trace, i, "too-slow");
        finish(state, pattern, false);
      } else if (pattern.forTicks < 0) fireChord(program, pattern, state, trace, i, true);
      else {
        cells[base + HOLDING] = 1;
        cells[base + SINCE] = nowTicks(pattern, state);
      }
    }
    setPhase(
      state,
      i,
      cells[base + HOT] === 1 ? SUSTAINED : isForming(program, pattern, state, i) ? FORMING : IDLE,
    );
    if (cells[base + HOLDING] !== 0) sleepUntil(state, i, cells[base + SINCE]! + pattern.forTicks);
  },
  restart(_program, pattern, state) {
    finish(state, pattern, false);
  },
};
