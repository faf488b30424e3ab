import { createInputCursor, createTrace, loadInput, seekInput, type InputColumns, type RunFrom } from "#core";
import type { Rules } from "./rules";
import { copyStaging, createStaging, stepStaging, type Staging } from "./staging";

/** How far apart the moments lie that are kept to begin from. Frames. */
const MARK_EVERY = 30;

/**
 * Makes what runs changed columns of one take from where they begin to differ: rules and bodies as they stood before are
 * kept, every half second, and only the rest is run. The same, from there on, as a run from the beginning; a property test
 * holds it. The traces it gives begin at the kept moment; `runTo` gives the same trace, grown.
 */
export function createBranching(rules: Rules, columns: InputColumns): RunFrom {
  const now = createStaging(rules);
  const cursor = createInputCursor(rules.program, columns);
  const scratch = createTrace(rules.program.rateHz);
  const branch = createStaging(rules);
  /** Mark `k` stands before frame `k × MARK_EVERY`. */
  const marks: Staging[] = [];
  const markBefore = (frame: number): Staging => {
    const wanted = Math.floor(frame / MARK_EVERY);
    while (marks.length <= wanted) {
      if ((now.state.frame + 1) % MARK_EVERY === 0) {
        const kept = createStaging(rules);
        copyStaging(rules, now, kept);
        marks.push(kept);
      }
      scratch.count = scratch.used = 0;
      stepStaging(rules, now, loadInput(cursor, now.state.frame + 1), scratch);
    }
    return marks[wanted]!;
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
