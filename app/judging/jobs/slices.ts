import type { JobTools } from "./job";

/** So long is worked between two rests, ms. */
const SLICE_MS = 8;

/** Works through a study that can be cut anywhere, resting every few milliseconds; `see` hears of every step. */
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
    await tools.rest();
    restAt = performance.now() + SLICE_MS;
  }
}

/** Tells no more often than this, ms: each telling is work for the page too. */
const TELL_EVERY_MS = 80;

/** What tells how far a job has come, but not too often; the first time at once. */
export function createTeller(tools: JobTools): (done: number, of: number, partial?: () => unknown) => void {
  let toldAt = -Infinity;
  return (done, of, partial) => {
    if (performance.now() - toldAt < TELL_EVERY_MS) return;
    toldAt = performance.now();
    tools.tell(done, of, partial?.());
  };
}
