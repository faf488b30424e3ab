import { parseMicroframes } from "../time/duration";

const MILLION = 1_000_000n;

/** A written time as a fraction: how many judged frames it is, exact. Undefined for text that is no time. */
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
 * The frame on which a time from the take's start lands when a take is judged at a rate: frames are those of the kit's own
 * rate; the nearest frame, a half upward. Source: check rules, "Times". Throws on text that is no time.
 */
export function landTime(written: string, kitRateHz: number, rateHz: number): number {
  const fraction = toFraction(written, kitRateHz, rateHz);
  if (!fraction) throw new Error(`"${written}" is no time`);
  const [above, below] = fraction;
  return Number((2n * above + below) / (2n * below));
}

/** A leeway in frames of a judged rate, rounded down. Throws on text that is no time. */
export function landLeeway(written: string, kitRateHz: number, rateHz: number): number {
  const fraction = toFraction(written, kitRateHz, rateHz);
  if (!fraction) throw new Error(`"${written}" is no length`);
  return Number(fraction[0] / fraction[1]);
}
