import { readTake, type Kit, type Take, type Trace } from "#core";
import { compileRules, runRules, type Rules } from "#stage";

/** Traces are kept while they have no more notes than this together; what is more is run again when it is asked for. */
const MOST_NOTES = 2_000_000;

/** A kit's rules and what they make of takes, each take run once for all the files that need it. */
export interface Runs {
  readonly rules: Rules;
  readonly traceOf: (take: Take) => Trace;
}

/** Makes the runs of a kit's takes; undefined where its rules have faults. `tell` hears of each take that was run. */
export function createRuns(
  { kit, takes }: { readonly kit: Kit; readonly takes: readonly Take[] },
  tell?: (done: number, of: number) => void,
): Runs | undefined {
  const compiled = compileRules(kit);
  if (!compiled.ok) return undefined;
  const rules = compiled.value;
  const kept = new Map<Take, Trace>();
  let notes = 0;
  let ran = 0;
  return {
    rules,
    traceOf(take) {
      const known = kept.get(take);
      if (known) return known;
      const { trace } = runRules(rules, readTake(rules.program, take));
      notes += trace.count;
      tell?.(Math.min(++ran, takes.length), takes.length);
      if (notes <= MOST_NOTES) kept.set(take, trace);
      return trace;
    },
  };
}
