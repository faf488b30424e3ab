import { findOverlaps, type Kit, type Overlap, type Overlaps } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/**
 * Finds inputs that set off two rules at once, and counts in the takes how often one comes without the other;
 * reports each as it is found.
 */
export const overlapsJob: Job<{ readonly kit: Kit }, Overlaps> = async ({ kit }, takes, tools) => {
  const found: Overlap[] = [];
  const reportProgress = createProgressReporter(tools);
  const value = await workThrough(findOverlaps(kit, takes, prepareStudied()), tools, step => {
    if (step.found) found.push(step.found);
    reportProgress(step.done, step.of, () => ({ found, none: [], silent: [], runs: 0 }));
  });
  return { value };
};
