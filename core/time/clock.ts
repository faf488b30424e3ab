/** Hundredths of a frame in one frame at full speed: every age and limit in a program is counted in these ticks. */
export const TICKS = 100;

/** The two clocks: `game` follows the take's speed lane, `real` never slows. */
export type Clock = "game" | "real";

/**
 * The frame on which something at `x` lands: ceil(x × kitRate ÷ takeRate − 1e-6).
 * `x` is in frames of the take's own rate, fractions allowed. Source: frame rules, section 2.
 */
export function landingFrame(x: number, kitRateHz: number, takeRateHz: number): number {
  return Math.max(0, Math.ceil((x * kitRateHz) / takeRateHz - 1e-6));
}

/** Ticks as frames; what never comes stays so. */
export function inFrames(ticks: number): number {
  return ticks / TICKS;
}
