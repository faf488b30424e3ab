import { findOverlaps, type Kit, type Overlap, type Overlaps } from "#core";
import type { Job } from "./job";
import { createTeller, workThrough } from "./slices";

/** Looks for inputs that set off two rules at once; what is found is told as it comes. Takes have no part in it. */
export const overlapsJob: Job<{ readonly kit: Kit }, Overlaps> = async ({ kit }, _takes, tools) => {
  const found: Overlap[] = [];
  const tell = createTeller(tools);
  const value = await workThrough(findOverlaps(kit), tools, step => {
    if (step.found) found.push(step.found);
    tell(step.done, step.of, () => ({ found, none: [], silent: [], runs: 0 }));
  });
  return { value };
};
