/** A measured share: `hits` of `n`, their ratio, and its 95 % confidence interval. */
export interface Share {
  readonly hits: number;
  readonly n: number;
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** The number of standard deviations on either side that contain 95 % of a normal distribution. */
const Z = 1.959964;

/**
 * Returns the share of `hits` in `n` with its 95 % score interval. For n = 0 the share is 0 and the interval
 * 0 to 1. Source: E. B. Wilson, Journal of the American Statistical Association 22 (1927), 209–212.
 */
export function shareOf(hits: number, n: number): Share {
  if (n === 0) return { hits, n, share: 0, low: 0, high: 1 };
  const share = hits / n;
  const middle = (share + (Z * Z) / (2 * n)) / (1 + (Z * Z) / n);
  const half = (Z / (1 + (Z * Z) / n)) * Math.sqrt((share * (1 - share)) / n + (Z * Z) / (4 * n * n));
  return { hits, n, share, low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}
