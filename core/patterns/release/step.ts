import { isDown, isPressed, nowTicks, pressTicks } from "../../program/sight";
import type { ReleaseProgram } from "./program";
import { FORMING, IDLE } from "../../program/state";
import { TICKS } from "../../time/clock";
import { firePress, setPhase, type PatternStepper } from "../fire";

/**
 * Cell: whether a press is being followed. A press from before the pattern became active, or a hidden one, is
 * not.
 */
const LIVE = 0;

export const releaseStepper: PatternStepper<ReleaseProgram> = {
  step(program, pattern, state, trace, i) {
    const { control, base } = pattern;
    const cells = state.cells;
    if (isPressed(program, state, i, control)) cells[base + LIVE] = 1;
    else if (cells[base + LIVE] === 1 && !isDown(program, state, i, control)) {
      cells[base + LIVE] = 0;
      const ageTicks = nowTicks(pattern, state) - pressTicks(pattern, state, control);
      firePress(program, state, trace, i, control, ageTicks / TICKS);
    }
    setPhase(state, i, cells[base + LIVE] === 1 ? FORMING : IDLE);
  },
};
