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

/** The minimum interval of progress reports, in ms: each report causes work on the page. */
const REPORT_EVERY_MS = 80;

/** Creates a throttled progress reporter; the first report is sent at once. */
export function createProgressReporter(
  tools: JobTools,
): (done: number, of: number, partial?: () => unknown) => void {
  let reportedAt = -Infinity;
  return (done, of, partial) => {
    if (performance.now() - reportedAt < REPORT_EVERY_MS) return;
    reportedAt = performance.now();
    tools.reportProgress(done, of, partial?.());
  };
}
