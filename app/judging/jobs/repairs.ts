import { searchRepairs, type Fate, type Kit, type Repair } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

interface RepairsQuestion {
  readonly kit: Kit;
  readonly fates: readonly Fate[];
  /** Whether to find only the nearest repair of each press. */
  readonly isNearestOnly: boolean;
}

/**
 * Finds the repairs of each press, in the order of the fates; reports them as they are found, and yields
 * after every run. A press that no single number can save has none. The presses are in the first take; the
 * other takes are included in the price.
 */
export const repairsJob: Job<RepairsQuestion, readonly (readonly Repair[])[]> = async (
  { kit, fates, isNearestOnly },
  [take, ...others],
  tools,
) => {
  const repairs: (readonly Repair[])[] = [];
  const reportProgress = createProgressReporter(tools, 0);
  for (const fate of fates) {
    const search = searchRepairs(kit, take!, fate, { prepare: prepareStudied(), isNearestOnly, others });
    repairs.push(await workThrough(search, tools, () => undefined));
    reportProgress(repairs.length, fates.length, () => [...repairs]);
  }
  return { value: repairs };
};
