import { searchRepairs, type Fate, type Kit, type Repair } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createTeller, workThrough } from "./slices";

interface RepairsQuestion {
  readonly kit: Kit;
  readonly fates: readonly Fate[];
  /** Only the nearest of each. */
  readonly isNearestOnly: boolean;
}

/**
 * Finds what would have saved each press, in the order of the fates; reports them as they are found, and rests after every
 * run. Nothing where no single number would. The presses are in the first take; over the others the price is counted too.
 */
export const repairsJob: Job<RepairsQuestion, readonly (readonly Repair[])[]> = async (
  { kit, fates, isNearestOnly },
  [take, ...others],
  tools,
) => {
  const repairs: (readonly Repair[])[] = [];
  const tell = createTeller(tools);
  for (const fate of fates) {
    const search = searchRepairs(kit, take!, fate, { prepare: prepareStudied(), isNearestOnly, others });
    repairs.push(await workThrough(search, tools, () => undefined));
    tell(repairs.length, fates.length, () => [...repairs]);
  }
  return { value: repairs };
};
