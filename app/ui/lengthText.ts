import { parseFrames, DURATION_PATTERN, formatMs } from "#core";

/** Units people type, converted to the kit's units. */
const UNITS: Readonly<Record<string, (typed: number) => string>> = {
  s: seconds => `${Number((seconds * 1000).toFixed(3))}ms`,
  sec: seconds => `${Number((seconds * 1000).toFixed(3))}ms`,
  frame: frames => `${frames}f`,
  frames: frames => `${frames}f`,
};

/** Converts typed text to the two units of a kit: "0.3s" is 300ms. */
function inOwnUnits(compact: string): string {
  const found = /^(\d+(?:\.\d+)?)([a-z]+)$/.exec(compact);
  const unit = found && UNITS[found[2]!];
  return unit ? unit(Number(found[1])) : compact;
}

/** Parses a typed length, or returns the reason for an error. A bare number keeps the previous unit. */
export function readLength(
  typed: string,
  current: string,
  rateHz: number,
  rounding: "atLeast" | "atMost",
  least: number,
): { ok: true; value: string } | { ok: false; reason: string } {
  const compact = typed.trim().toLowerCase().replace(/\s+/g, "").replace(",", ".");
  const unit = current.endsWith("ms") ? "ms" : "f";
  const value = /^\d+(\.\d+)?$/.test(compact) ? compact + unit : inOwnUnits(compact);
  if (/^\d+\.\d+f$/.test(value))
    return {
      ok: false,
      reason: `frames are whole: write ${Math.round(parseFloat(value))}f, or a time in ms`,
    };
  if (!DURATION_PATTERN.test(value))
    return { ok: false, reason: `${typed || "nothing"} is not a length: write 12f or 200ms` };
  const frames = parseFrames(value, rateHz, rounding) ?? 0;
  if (frames < least) return { ok: false, reason: `at least ${least}f (${formatMs(least, rateHz)}) here` };
  return { ok: true, value };
}

/** Steps a length by whole frames. Milliseconds stay milliseconds, on a frame boundary. */
export function stepLength(
  current: string,
  byFrames: number,
  rateHz: number,
  rounding: "atLeast" | "atMost",
  least: number,
): string {
  const frames = Math.max(least, (parseFrames(current, rateHz, rounding) ?? 0) + byFrames);
  return current.endsWith("ms") ? formatExactMs(frames, rateHz, rounding) : `${frames}f`;
}

/**
 * Formats milliseconds that round to exactly this many frames in the field's rounding; at most three
 * decimals.
 */
function formatExactMs(frames: number, rateHz: number, rounding: "atLeast" | "atMost"): string {
  const thousandths = (frames * 1_000_000) / rateHz;
  const whole = rounding === "atLeast" ? Math.floor(thousandths + 1e-9) : Math.ceil(thousandths - 1e-9);
  return `${whole / 1000}ms`;
}

/** Formats a length in the other unit: 6f is "100 ms", 100ms is "6f" as rounded. */
export function otherUnit(value: string, rateHz: number, rounding: "atLeast" | "atMost"): string {
  const frames = parseFrames(value, rateHz, rounding) ?? 0;
  return value.endsWith("ms") ? `${frames}f` : formatMs(frames, rateHz);
}
