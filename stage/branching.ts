import { createInputCursor, createTrace, loadInput, seekInput, type InputColumns, type RunFrom } from "#core";
import type { Rules } from "./rules";
import { copyStaging, createStaging, stepStaging, type Staging } from "./staging";

/** The distance of kept moments, in frames, and how many of the last are kept. */
const MARK_EVERY = 30;
const MAX_MARKS = 8;

/**
 * Creates a runner of changed columns of one take that starts where they first differ: it keeps rules and
 * bodies every half second and runs only the rest. From there on the result equals a run from the beginning
 * (tested). Only the last few seconds are kept, so changes should be requested in order of their start; an
 * older start runs from the beginning. Its traces begin at the kept moment; `runTo` extends the same trace.
 */
export function createBranching(rules: Rules, columns: InputColumns): RunFrom {
  let now = createStaging(rules);
  let cursor = createInputCursor(rules.program, columns);
  const scratch = createTrace(rules.program.rateHz);
  const branch = createStaging(rules);
  /** By `k`: the staging before frame `k × MARK_EVERY`. */
  const marks = new Map<number, Staging>();
  const markBefore = (frame: number): Staging => {
    const wanted = Math.floor(frame / MARK_EVERY);
    if (!marks.has(wanted) && now.state.frame + 1 > wanted * MARK_EVERY) {
      now = createStaging(rules);
      cursor = createInputCursor(rules.program, columns);
      marks.clear();
    }
    while (!marks.has(wanted)) {
      const next = now.state.frame + 1;
      if (next % MARK_EVERY === 0) {
        const kept = createStaging(rules);
        copyStaging(rules, now, kept);
        marks.set(next / MARK_EVERY, kept);
        marks.delete(next / MARK_EVERY - MAX_MARKS);
      }
      scratch.count = scratch.used = 0;
      stepStaging(rules, now, loadInput(cursor, next), scratch);
    }
    return marks.get(wanted)!;
  };
  return (changed, from) => {
    copyStaging(rules, markBefore(Math.max(0, from)), branch);
    const own = createInputCursor(rules.program, changed);
    seekInput(own, branch.state.frame + 1);
    const trace = createTrace(rules.program.rateHz, 256);
    return {
      runTo(frame) {
        while (branch.state.frame + 1 < frame)
          stepStaging(rules, branch, loadInput(own, branch.state.frame + 1), trace);
        return trace;
      },
    };
  };
}
