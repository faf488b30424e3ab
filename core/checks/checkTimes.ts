import { parseMicroframes } from "../time/duration";

const MILLION = 1_000_000n;

/**
 * Parses a written time into an exact fraction of judged frames. Returns undefined for text that is not a
 * time.
 */
function toFraction(
  written: string,
  kitRateHz: number,
  rateHz: number,
): readonly [bigint, bigint] | undefined {
  const micro = parseMicroframes(written, rateHz);
  if (micro === undefined) return undefined;
  return written.endsWith("ms") ? [micro, MILLION] : [micro * BigInt(rateHz), MILLION * BigInt(kitRateHz)];
}

/**
 * Returns the frame on which a written time, counted from the take's start, lands when a take is judged at
 * `rateHz`. Times written in frames use the kit's own rate. Rounds to the nearest frame, a half upward.
 * Source: check rules, "Times". Throws on text that is not a time.
 */
export function landTime(written: string, kitRateHz: number, rateHz: number): number {
  const fraction = toFraction(written, kitRateHz, rateHz);
  if (!fraction) throw new Error(`"${written}" is no time`);
  const [above, below] = fraction;
  return Number((2n * above + below) / (2n * below));
}

/** Returns a written leeway in frames of the judged rate, rounded down. Throws on text that is not a time. */
export function landLeeway(written: string, kitRateHz: number, rateHz: number): number {
  const fraction = toFraction(written, kitRateHz, rateHz);
  if (!fraction) throw new Error(`"${written}" is no length`);
  return Number(fraction[0] / fraction[1]);
}
