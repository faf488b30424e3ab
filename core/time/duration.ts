/** How a length of time becomes whole frames: "at least" rounds up, "at most" rounds down. */
export type Rounding = "atLeast" | "atMost";

const WRITTEN = /^(?:(\d{1,12})f|(\d{1,12})(?:\.(\d{1,3}))?ms)$/;

/** The pattern of a written length, for schemas: `6f`, `100ms`, `16.667ms`. */
export const DURATION_PATTERN = /^(?:\d{1,12}f|\d{1,12}(?:\.\d{1,3})?ms)$/;

/** The same, but more than nothing. */
export const DURATION_ABOVE_ZERO = /^(?=.*[1-9])(?:\d{1,12}f|\d{1,12}(?:\.\d{1,3})?ms)$/;

const MILLION = 1_000_000n;

/** Millionths of a frame, exact: a thousandth of a millisecond × frames a second is a millionth of a frame. */
export function parseMicroframes(text: string, rateHz: number): bigint | undefined {
  const found = WRITTEN.exec(text);
  if (!found) return undefined;
  if (found[1] !== undefined) return BigInt(found[1]) * MILLION;
  return BigInt(found[2]! + (found[3] ?? "").padEnd(3, "0")) * BigInt(rateHz);
}

/**
 * A written length as whole frames at a rate, in exact arithmetic.
 * `text`: "6f" or "100ms" (at most three decimals). `rateHz`: frames a second, whole, 1 to 1000.
 * "atLeast" rounds up and "atMost" down, so that a rule is never judged early nor accepted late;
 * a length of exactly n frames is n under both. Text that is no length gives undefined.
 */
export function parseFrames(text: string, rateHz: number, rounding: Rounding): number | undefined {
  const micro = parseMicroframes(text, rateHz);
  if (micro === undefined) return undefined;
  return Number(rounding === "atLeast" ? (micro + MILLION - 1n) / MILLION : micro / MILLION);
}

/** Is `a`, as written and before any rounding, shorter than `b`? False when either is no length. */
export function isShorterAsWritten(a: string, b: string, rateHz: number): boolean {
  const left = parseMicroframes(a, rateHz);
  const right = parseMicroframes(b, rateHz);
  return left !== undefined && right !== undefined && left < right;
}

/** Frames as milliseconds for reading, at most one decimal: 6 at 60 Hz is "100 ms". */
export function formatMs(frames: number, rateHz: number): string {
  return `${Math.round((frames * 10_000) / rateHz) / 10} ms`;
}
