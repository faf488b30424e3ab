import { momentOn, nowOn } from "./moments";
import type { PatternBase, Program } from "./program";
import type { State } from "./state";

/** How one pattern sees the controls: cleaned, less what is hidden from it. Every pattern reads through these. */

/** Is the control veiled from pattern `i`, that is seen as up until it has been let go? */
function isVeiled(program: Program, state: State, i: number, control: number): boolean {
  return program.hides && state.veiled[i * program.controls.length + control] === 1;
}

/** Down on this frame. */
export function isDown(program: Program, state: State, i: number, control: number): boolean {
  return state.down[control] === 1 && !isVeiled(program, state, i, control);
}

/** Down on the frame before, as seen now. */
export function wasDown(program: Program, state: State, i: number, control: number): boolean {
  return state.was[control] === 1 && !isVeiled(program, state, i, control);
}

/** A press edge on this frame. */
export function isPressed(program: Program, state: State, i: number, control: number): boolean {
  return state.down[control] === 1 && state.was[control] === 0 && !isVeiled(program, state, i, control);
}

/** A release edge on this frame. A veiled press is let go unseen. */
export function isReleased(program: Program, state: State, i: number, control: number): boolean {
  return state.down[control] === 0 && state.was[control] === 1 && !isVeiled(program, state, i, control);
}

/** A press edge on any of these controls on this frame. */
export function isAnyPressed(
  program: Program,
  state: State,
  i: number,
  controls: readonly number[],
): boolean {
  for (let k = 0; k < controls.length; k++) if (isPressed(program, state, i, controls[k]!)) return true;
  return false;
}

/** The present moment on the pattern's clock, in ticks. */
export function nowTicks(pattern: PatternBase, state: State): number {
  return nowOn(pattern.isReal, state);
}

/** When the control's present (or last) press began, on the pattern's clock, in ticks. */
export function pressTicks(pattern: PatternBase, state: State, control: number): number {
  return momentOn(pattern.isReal, state.pressFrame[control]!, state.pressTicks[control]!);
}
