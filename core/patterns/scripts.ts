import type { Rounding } from "../time/duration";

/** One press of a control: its first frame down, and the first frame up again. */
export interface ScriptPress {
  readonly control: string;
  readonly from: number;
  readonly to: number;
}

/** Presses intended to set off a pattern. */
export type Script = readonly ScriptPress[];

/** Converts a written length to frames of the kit. */
export type LengthOf = (written: string, rounding: Rounding) => number;

/** The length of a press whose length does not matter, in frames. */
export const SHORT = 2;

/** Returns one press of a control from frame 0 on, of a length in frames. */
export function onePress(control: string, frames: number): Script {
  return [{ control, from: 0, to: Math.max(1, frames) }];
}

/** Returns presses of some controls in turn, each `apart` frames after the previous one. */
export function pressesInTurn(controls: readonly string[], count: number, apart: number): Script {
  return Array.from({ length: count }, (_, k) => ({
    control: controls[k % controls.length]!,
    from: k * apart,
    to: k * apart + Math.min(SHORT, Math.max(1, apart - 1)),
  }));
}
