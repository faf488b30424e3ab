import * as v from "valibot";

/** A whole number from 0 up, as frames and counts in trace files are. */
export const whole = v.pipe(v.number(), v.integer(), v.minValue(0));

/** Returns a number with at most six decimals, and never minus zero. */
export function roundSix(value: number): number {
  return Math.round(value * 1e6) / 1e6 + 0;
}
