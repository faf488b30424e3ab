/** The bounds of a number in a sentence. */
export interface NumberBounds {
  readonly least?: number | undefined;
  readonly most?: number | undefined;
  readonly isWhole?: boolean | undefined;
}

/** Formats the bounds: "0 to 1", "at least 1", "a whole number". */
export function formatBounds({ least, most, isWhole }: NumberBounds): string {
  const words = isWhole ? "a whole number" : "a number";
  if (least !== undefined && most !== undefined) return `${words} from ${least} to ${most}`;
  if (least !== undefined) return `${words}, at least ${least}`;
  return most === undefined ? words : `${words}, at most ${most}`;
}

/** Parses a typed number, or returns the reason for an error. Accepts a decimal comma. */
export function readNumber(
  typed: string,
  bounds: NumberBounds,
): { ok: true; value: string } | { ok: false; reason: string } {
  const written = typed.trim().replace(",", ".");
  const value = Number(written);
  const isFitting =
    written !== "" &&
    Number.isFinite(value) &&
    (!bounds.isWhole || Number.isInteger(value)) &&
    value >= (bounds.least ?? -Infinity) &&
    value <= (bounds.most ?? Infinity);
  if (!isFitting)
    return { ok: false, reason: `${typed.trim() || "nothing"} does not fit: ${formatBounds(bounds)}` };
  return { ok: true, value: String(value) };
}

/** Returns the number of decimals of a written number. */
function decimalsOf(written: string): number {
  return written.includes(".") ? written.length - written.indexOf(".") - 1 : 0;
}

/**
 * Returns a number some steps away, within its bounds. A step is one in the last decimal written; up to 1, a
 * hundredth.
 */
export function stepNumber(from: string, by: number, bounds: NumberBounds): string {
  const isShare = bounds.most !== undefined && bounds.most <= 1;
  const decimals = bounds.isWhole ? 0 : Math.max(isShare ? 2 : 0, Math.min(3, decimalsOf(from)));
  const stepped = Number((Number(from) + by / 10 ** decimals).toFixed(decimals));
  return String(Math.max(bounds.least ?? -Infinity, Math.min(bounds.most ?? Infinity, stepped)));
}

/** Formats a number with a fixed count of decimals: "0.0" also for one just below zero, "−1.5" with a minus sign. */
export function formatFixed(value: number, decimals: number): string {
  // Adding zero makes a negative zero positive.
  return (Number(value.toFixed(decimals)) + 0).toFixed(decimals).replace("-", "−");
}
