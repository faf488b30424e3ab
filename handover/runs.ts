import { readTake, type Kit, type Take, type Trace } from "#core";
import type { OnProgress } from "./kind";
import { compileRules, runRules, type Rules } from "#stage";

/** The maximum total of notes in cached traces; further traces are computed again on demand. */
const MAX_NOTES = 2_000_000;

/** A kit's rules and the runs of its takes, shared by all files that need them. */
export interface Runs {
  readonly rules: Rules;
  readonly traceOf: (take: Take) => Trace;
}

/**
 * Creates the runs of a kit's takes; undefined if its rules have faults. `onProgress` is called after each
 * take.
 */
export function createRuns(
  { kit, takes }: { readonly kit: Kit; readonly takes: readonly Take[] },
  onProgress?: OnProgress,
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
      onProgress?.(Math.min(++ran, takes.length), takes.length, "takes");
      if (notes <= MAX_NOTES) kept.set(take, trace);
      return trace;
    },
  };
}
