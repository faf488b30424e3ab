import type { PathStep } from "../../formats/issue";
import { listNumbers } from "../../kit/listNumbers";
import type { Kit } from "../../kit/schema";
import { parseFrames, type Rounding } from "../../time/duration";

/** A length in ms as rounded at a rate. */
export interface RoundedLength {
  readonly path: readonly PathStep[];
  /** The rule it belongs to, and its role there. */
  readonly rule: string;
  readonly label: string;
  readonly written: string;
  readonly rounding: Rounding;
  readonly at: readonly { readonly rateHz: number; readonly frames: number; readonly offMs: number }[];
}

/**
 * Returns every length of a kit written in ms, with its rounded value at each rate and the error in ms (above
 * 0: longer).
 */
export function roundLengths(kit: Kit, ratesHz: readonly number[]): RoundedLength[] {
  return listNumbers(kit).flatMap(({ path, rule, label, value, rounding }) => {
    const written = String(value);
    if (!rounding || !written.endsWith("ms")) return [];
    const at = ratesHz.map(rateHz => {
      const frames = parseFrames(written, rateHz, rounding) ?? 0;
      return { rateHz, frames, offMs: (frames * 1000) / rateHz - parseFloat(written) };
    });
    return [{ path, rule, label, written, rounding, at }];
  });
}
