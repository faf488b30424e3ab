import fc from "fast-check";

/** The most batches before a case that was not met is a failure. */
const MAX_BATCHES = 12;

/**
 * Runs a property `numRuns` times, and again with new draws until `isMet` returns true, at most twelve times.
 * For tests that require that random documents meet every case: a rare case takes as many runs as it needs.
 */
export function assertUntil<T>(
  property: fc.IProperty<T>,
  parameters: { readonly numRuns: number; readonly seed?: number },
  isMet: () => boolean,
): void {
  for (let batch = 0; batch < MAX_BATCHES; batch++) {
    const { numRuns, seed } = parameters;
    fc.assert(property, { numRuns, ...(seed === undefined ? {} : { seed: seed + batch }) });
    if (isMet()) return;
  }
}
