import {
  clearTrace,
  createInputCursor,
  createTrace,
  loadInput,
  seekInput,
  type InputColumns,
  type State,
} from "#core";
import type { Rules } from "./rules";
import { copyStaging, createStaging, stepStaging, type Staging } from "./staging";

/** The distance of kept states, in frames. */
const MARK_EVERY = 600;

/** Random access to the state of the rules after any frame of a take, for meters and prompts in a replay. */
export interface Seeker {
  /**
   * Returns the state after a frame, which must be in the take. Returns undefined after stepping `mostFrames`
   * without reaching it; call again to continue. The same object is returned every time and must not be kept.
   */
  readonly stateAt: (frame: number, mostFrames: number) => State | undefined;
}

/** Creates the seeker of a take, read into columns, for a kit's rules. Steps nothing yet. */
export function createSeeker(rules: Rules, columns: InputColumns): Seeker {
  const now = createStaging(rules, columns.isUnstaged);
  const { state } = now;
  const scratch = createTrace(rules.program.rateHz);
  const cursor = createInputCursor(rules.program, columns);
  const marks: Staging[] = [];

  function keepMark(): void {
    const kept = createStaging(rules, columns.isUnstaged);
    copyStaging(rules, now, kept);
    marks.push(kept);
  }

  function stepOnce(): void {
    const frame = state.frame + 1;
    if (frame === marks.length * MARK_EVERY) keepMark();
    clearTrace(scratch);
    stepStaging(rules, now, loadInput(cursor, frame), scratch);
  }

  function goBackTo(mark: Staging): void {
    copyStaging(rules, mark, now);
    seekInput(cursor, state.frame + 1);
  }

  return {
    stateAt(frame, mostFrames) {
      const mark = marks[Math.floor(frame / MARK_EVERY)] ?? marks.at(-1);
      if (mark && (state.frame > frame || mark.state.frame > state.frame)) goBackTo(mark);
      for (let stepped = 0; state.frame < frame; stepped++) {
        if (stepped === mostFrames) return undefined;
        stepOnce();
      }
      return state;
    },
  };
}
