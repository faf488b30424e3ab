import { findNearestMiss, type Fate, type Kit, type NearestMiss, type PrepareRun } from "#core";
import { compileRules, runRules } from "#stage";
import type { Job } from "./job";

const prepareStaged: PrepareRun = kit => {
  const rules = compileRules(kit);
  if (!rules.ok) return undefined;
  return { program: rules.value.program, run: columns => runRules(rules.value, columns).trace };
};

interface MissesQuestion {
  readonly kit: Kit;
  readonly fates: readonly Fate[];
}

/** The nearest miss of each fate, in their order; undefined where no single number would have saved it. */
export const missesJob: Job<MissesQuestion, readonly (NearestMiss | undefined)[]> = async (
  { kit, fates },
  [take],
  tools,
) => {
  const misses: (NearestMiss | undefined)[] = [];
  for (const fate of fates) {
    misses.push(findNearestMiss(kit, take!, fate, undefined, prepareStaged));
    tools.tell(misses.length, fates.length);
    await tools.rest();
  }
  return { value: misses };
};
