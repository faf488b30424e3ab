/**
 * The number of ticks per frame at full speed: every age and limit of a program is counted in hundredths of a
 * frame.
 */
export const TICKS = 100;

/** The two clocks: `game` follows the take's speed lane, `real` always runs at full speed. */
export type Clock = "game" | "real";

/**
 * Returns the frame on which an event at `x` lands: ceil(x × kitRate ÷ takeRate − 1e-6). `x` is in frames of
 * the take's own rate and may be fractional; rates are in Hz. Source: frame rules, section 2.
 */
export function landingFrame(x: number, kitRateHz: number, takeRateHz: number): number {
  return Math.max(0, Math.ceil((x * kitRateHz) / takeRateHz - 1e-6));
}

/** Converts ticks to frames; Infinity stays Infinity. */
export function inFrames(ticks: number): number {
  return ticks / TICKS;
}
