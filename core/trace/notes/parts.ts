import * as v from "valibot";

/** A whole number from 0 up, for frames and counts in trace files. */
export const whole = v.pipe(v.number(), v.integer(), v.minValue(0));

/** Rounds a number to six decimals, without minus zero. */
export function roundSix(value: number): number {
  return Math.round(value * 1e6) / 1e6 + 0;
}
