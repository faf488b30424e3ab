import { isDown, isPressed, nowTicks, pressTicks } from "../../program/sight";
import type { TapProgram } from "./program";
import { sleepUntil } from "../../program/sleep";
import { FORMING, IDLE } from "../../program/state";
import { firePress, lapse, setPhase, type PatternStepper } from "../fire";

/** Cell: whether a press is being followed. */
const LIVE = 0;

export const tapStepper: PatternStepper<TapProgram> = {
  step(program, pattern, state, trace, i) {
    const { control, base } = pattern;
    const cells = state.cells;
    if (isPressed(program, state, i, control)) cells[base + LIVE] = 1;
    else if (cells[base + LIVE] === 1) {
      if (nowTicks(pattern, state) - pressTicks(pattern, state, control) > pattern.maxTicks) {
        cells[base + LIVE] = 0;
        lapse(state, trace, i, "too-long");
      } else if (!isDown(program, state, i, control)) {
        cells[base + LIVE] = 0;
        firePress(program, state, trace, i, control);
      }
    }
    const isLive = cells[base + LIVE] === 1;
    setPhase(state, i, isLive ? FORMING : IDLE);
    if (isLive) sleepUntil(state, i, pressTicks(pattern, state, control) + pattern.maxTicks);
  },
};
