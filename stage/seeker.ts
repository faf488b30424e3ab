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

/** How far apart the moments lie that are kept to go back to. Frames. */
const MARK_EVERY = 600;

/** A take that can be looked into: how rules stood after any of its frames, for meters and prompts in a replay. */
export interface Seeker {
  /**
   * The state after a frame, or undefined where more than `mostFrames` would have to be stepped to come there: those
   * were stepped, ask again. The same object every time; it is to be read, not kept. The frame must lie in the take.
   */
  readonly stateAt: (frame: number, mostFrames: number) => State | undefined;
}

/** Opens a take, read into columns, for a kit's rules. Nothing is stepped yet. */
export function createSeeker(rules: Rules, columns: InputColumns): Seeker {
  const now = createStaging(rules);
  const { state } = now;
  const scratch = createTrace(rules.program.rateHz);
  const cursor = createInputCursor(rules.program, columns);
  const marks: Staging[] = [];

  function keepMark(): void {
    const kept = createStaging(rules);
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
