import type { JobTools } from "./job";

/** The working time between two yields, in ms. */
const SLICE_MS = 8;

/**
 * Runs a generator to its end, yielding to the worker every few milliseconds; `see` is called for every step.
 */
export async function workThrough<Y, R>(
  study: Generator<Y, R>,
  tools: JobTools,
  see?: (step: Y) => void,
): Promise<R> {
  let restAt = performance.now() + SLICE_MS;
  for (let step = study.next(); ; step = study.next()) {
    if (step.done) return step.value;
    see?.(step.value);
    if (performance.now() < restAt) continue;
    await tools.yieldNow();
    restAt = performance.now() + SLICE_MS;
  }
}

/** The minimum interval of progress reports, in ms. */
const REPORT_EVERY_MS = 80;

/**
 * The longest interval of partial results that the page draws, in ms. It grows to this, as the first ones show the most
 * that is new.
 */
const DRAWN_EVERY_MS = 400;

/**
 * Creates a throttled progress reporter: the first report is sent at once, with its partial result; later ones have one less
 * and less often, up to every `mostMs`. With 0 every report has one.
 */
export function createProgressReporter(
  tools: JobTools,
  mostMs = DRAWN_EVERY_MS,
): (done: number, of: number, partial?: () => unknown) => void {
  let reportedAt = -Infinity;
  let partialAt = -Infinity;
  let partialEveryMs = Math.min(REPORT_EVERY_MS, mostMs);
  return (done, of, partial) => {
    const now = performance.now();
    if (now - reportedAt < REPORT_EVERY_MS) return;
    reportedAt = now;
    if (!partial || now - partialAt < partialEveryMs) return tools.reportProgress(done, of);
    if (partialAt > -Infinity) partialEveryMs = Math.min(mostMs, 2 * partialEveryMs);
    partialAt = now;
    tools.reportProgress(done, of, partial());
  };
}
