import { momentOn, nowOn } from "./moments";
import type { PatternBase, Program } from "./program";
import type { State } from "./state";

// The controls as one pattern sees them: cleaned, without what is hidden from it. Every pattern reads through these.

/** Returns whether the control is veiled from pattern `i`: seen as up until it has been released. */
function isVeiled(program: Program, state: State, i: number, control: number): boolean {
  return program.hides && state.veiled[i * program.controls.length + control] === 1;
}

/** Returns whether the control is down on this frame. */
export function isDown(program: Program, state: State, i: number, control: number): boolean {
  return state.down[control] === 1 && !isVeiled(program, state, i, control);
}

/** Returns whether the control was down on the previous frame, with the present hiding applied. */
export function wasDown(program: Program, state: State, i: number, control: number): boolean {
  return state.was[control] === 1 && !isVeiled(program, state, i, control);
}

/** Returns whether there is a press edge on this frame. */
export function isPressed(program: Program, state: State, i: number, control: number): boolean {
  return state.down[control] === 1 && state.was[control] === 0 && !isVeiled(program, state, i, control);
}

/** Returns whether there is a release edge on this frame. The release of a veiled press is not visible. */
export function isReleased(program: Program, state: State, i: number, control: number): boolean {
  return state.down[control] === 0 && state.was[control] === 1 && !isVeiled(program, state, i, control);
}

/** Returns whether any of these controls has a press edge on this frame. */
export function isAnyPressed(
  program: Program,
  state: State,
  i: number,
  controls: readonly number[],
): boolean {
  for (let k = 0; k < controls.length; k++) if (isPressed(program, state, i, controls[k]!)) return true;
  return false;
}

/** Returns the current time on the pattern's clock, in ticks. */
export function nowTicks(pattern: PatternBase, state: State): number {
  return nowOn(pattern.isReal, state);
}

/** Returns the time of the control's current (or last) press on the pattern's clock, in ticks. */
export function pressTicks(pattern: PatternBase, state: State, control: number): number {
  return momentOn(pattern.isReal, state.pressFrame[control]!, state.pressTicks[control]!);
}
