import { isDown, isPressed, nowTicks, pressTicks } from "../../program/sight";
import type { PressProgram, RepeatProgram } from "./program";
import { sleepUntil } from "../../program/sleep";
import { IDLE, SUSTAINED } from "../../program/state";
import { firePress, setPhase, type PatternStepper } from "../fire";

/** Cells: whether a press is being followed, repeat marks passed, fires so far. */
const LIVE = 0;
const MARKS = 1;
const FIRES = 2;

/** Returns the number of repeat marks (after, after + every, …) an age has passed. */
function marksPassed(repeat: RepeatProgram, ageTicks: number): number {
  if (ageTicks < repeat.afterTicks) return 0;
  return Math.floor((ageTicks - repeat.afterTicks) / repeat.everyTicks) + 1;
}

export const pressStepper: PatternStepper<PressProgram> = {
  step(program, pattern, state, trace, i) {
    const { control, base, repeat } = pattern;
    const cells = state.cells;
    if (isPressed(program, state, i, control)) {
      firePress(program, state, trace, i, control, 0);
      cells[base + LIVE] = 1;
      cells[base + FIRES] = 1;
      cells[base + MARKS] = repeat ? marksPassed(repeat, 0) : 0;
    } else if (cells[base + LIVE] === 1) {
      if (!isDown(program, state, i, control)) cells[base + LIVE] = 0;
      else if (repeat) {
        const marks = marksPassed(repeat, nowTicks(pattern, state) - pressTicks(pattern, state, control));
        if (marks > cells[base + MARKS]!) {
          cells[base + MARKS] = marks;
          firePress(program, state, trace, i, control, cells[base + FIRES]!);
          cells[base + FIRES] = cells[base + FIRES]! + 1;
        }
      }
    }
    const isLive = cells[base + LIVE] === 1;
    setPhase(state, i, isLive ? SUSTAINED : IDLE);
    if (isLive && repeat)
      sleepUntil(
        state,
        i,
        pressTicks(pattern, state, control) + repeat.afterTicks + cells[base + MARKS]! * repeat.everyTicks,
      );
  },
};
