/** The rounding of a length to whole frames: "at least" rounds up, "at most" rounds down. */
export type Rounding = "atLeast" | "atMost";

const WRITTEN = /^(?:(\d{1,12})f|(\d{1,12})(?:\.(\d{1,3}))?ms)$/;

/** The pattern of a written length, for schemas: `6f`, `100ms`, `16.667ms`. */
export const DURATION_PATTERN = /^(?:\d{1,12}f|\d{1,12}(?:\.\d{1,3})?ms)$/;

/** The pattern of a written length above zero. */
export const DURATION_ABOVE_ZERO = /^(?=.*[1-9])(?:\d{1,12}f|\d{1,12}(?:\.\d{1,3})?ms)$/;

/** The longest length that can be written, in frames or in ms; every sum of such lengths is exact. */
export const LONGEST_WRITTEN = 999_999_999_999;

const MILLION = 1_000_000n;

/**
 * Parses a length as exact millionths of a frame: a thousandth of a millisecond × frames per second is a
 * millionth of a frame.
 */
export function parseMicroframes(text: string, rateHz: number): bigint | undefined {
  const found = WRITTEN.exec(text);
  if (!found) return undefined;
  if (found[1] !== undefined) return BigInt(found[1]) * MILLION;
  return BigInt(found[2]! + (found[3] ?? "").padEnd(3, "0")) * BigInt(rateHz);
}

/**
 * Parses a written length as whole frames at a rate, in exact arithmetic. `text`: "6f" or "100ms" (at most
 * three decimals). `rateHz`: frames per second, a whole number from 1 to 1000. "atLeast" rounds up and
 * "atMost" down, so that a rule never judges early nor accepts late; a length of exactly n frames is n under
 * both. Returns undefined for text that is not a length. Example: `parseFrames("100ms", 60, "atLeast")` is 6.
 */
export function parseFrames(text: string, rateHz: number, rounding: Rounding): number | undefined {
  const micro = parseMicroframes(text, rateHz);
  if (micro === undefined) return undefined;
  return Number(rounding === "atLeast" ? (micro + MILLION - 1n) / MILLION : micro / MILLION);
}

/**
 * Returns whether `a`, as written and before any rounding, is shorter than `b`; false if either is not a
 * length.
 */
export function isShorterAsWritten(a: string, b: string, rateHz: number): boolean {
  const left = parseMicroframes(a, rateHz);
  const right = parseMicroframes(b, rateHz);
  return left !== undefined && right !== undefined && left < right;
}

/** Formats frames as milliseconds with at most one decimal: 6 at 60 Hz is "100 ms". */
export function formatMs(frames: number, rateHz: number): string {
  return `${Math.round((frames * 10_000) / rateHz) / 10} ms`;
}
