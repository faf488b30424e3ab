import { sweepValues, type Check, type SweepPoint, type SweepQuestion } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/** Computes the points of a sweep over takes, with checks judged; reports points as they are found. */
export const sweepJob: Job<
  { readonly sweep: SweepQuestion; readonly checks: readonly Check[] },
  readonly SweepPoint[]
> = async ({ sweep, checks }, takes, tools) => {
  const points: SweepPoint[] = [];
  const reportProgress = createProgressReporter(tools);
  const study = sweepValues(sweep, takes, prepareStudied(checks));
  const value = await workThrough(study, tools, ({ runs, of, point }) => {
    if (point) points.push(point);
    reportProgress(runs, of, () => points);
  });
  return { value };
};
