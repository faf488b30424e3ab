import { landingFrame } from "../time/clock";
import type { Take } from "./takeSchema";

/** Returns the frames of a kit's rate before which time passed unrecorded in a take, in order. */
export function gapFrames({ gaps = [], rate }: Pick<Take, "gaps" | "rate">, kitRateHz: number): number[] {
  return gaps.map(([x]) => landingFrame(x, kitRateHz, rate));
}
