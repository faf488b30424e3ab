import { findRepairs, type Fate, type Kit, type PrepareRun, type Repair } from "#core";
import { compileRules, runRules } from "#stage";
import type { Job } from "./job";

const prepareStaged: PrepareRun = kit => {
  const rules = compileRules(kit);
  if (!rules.ok) return undefined;
  return { program: rules.value.program, run: columns => runRules(rules.value, columns).trace };
};

interface RepairsQuestion {
  readonly kit: Kit;
  readonly fates: readonly Fate[];
  /** Only the nearest of each. */
  readonly isNearestOnly: boolean;
}

/**
 * What would have saved each press, in the order of the fates; nothing where no single number would. The presses are in
 * the first take; over the others what a repair costs is counted as well.
 */
export const repairsJob: Job<RepairsQuestion, readonly (readonly Repair[])[]> = async (
  { kit, fates, isNearestOnly },
  [take, ...others],
  tools,
) => {
  const repairs: (readonly Repair[])[] = [];
  for (const fate of fates) {
    repairs.push(findRepairs(kit, take!, fate, { prepare: prepareStaged, isNearestOnly, others }));
    tools.tell(repairs.length, fates.length);
    await tools.rest();
  }
  return { value: repairs };
};
