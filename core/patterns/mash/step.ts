import { isDown, isPressed, nowTicks } from "../../program/sight";
import { edgeKey, type Program } from "../../program/program";
import type { MashProgram } from "./program";
import { sleepUntil } from "../../program/sleep";
import { FIRED, FORMING, IDLE, LAPSED, SUSTAINED, type State } from "../../program/state";
import type { Trace } from "../../trace/trace";
import { addEdge, beginFire, endFire, setPhase, type PatternStepper } from "../fire";

/**
 * Cells: presses counted, control of the previous press (+1), control that fired and is still down (+1), then
 * [key, ticks] of each press, oldest first.
 */
const COUNT = 0;
const BEFORE = 1;
const HOT = 2;
export const MASH_CELLS = 3;

function countPress(program: Program, pattern: MashProgram, state: State, control: number): number {
  const cells = state.cells;
  const first = pattern.base + MASH_CELLS;
  let count = cells[pattern.base + COUNT]!;
  if (count === pattern.count) {
    cells.copyWithin(first, first + 2, first + 2 * count);
    count--;
  }
  cells[first + 2 * count] = edgeKey(state.frame, control, program.sourceCount);
  cells[first + 2 * count + 1] = nowTicks(pattern, state);
  return (cells[pattern.base + COUNT] = count + 1);
}

function fireMash(
  program: Program,
  pattern: MashProgram,
  state: State,
  trace: Trace,
  i: number,
  control: number,
): void {
  const first = pattern.base + MASH_CELLS;
  beginFire(state, i);
  for (let k = 0; k < pattern.count; k++) addEdge(program, state, i, state.cells[first + 2 * k]!);
  endFire(program, state, trace, i);
  state.cells[pattern.base + COUNT] = 0;
  state.cells[pattern.base + HOT] = control + 1;
}

/** Returns the presses of the current attempt. */
export function mashMade({ base }: MashProgram, { cells }: State): number {
  return cells[base + COUNT]!;
}

export const mashStepper: PatternStepper<MashProgram> = {
  step(program, pattern, state, trace, i) {
    const { base, controls } = pattern;
    const cells = state.cells;
    const now = nowTicks(pattern, state);
    const first = base + MASH_CELLS;
    const hot = cells[base + HOT]!;
    if (hot > 0 && !isDown(program, state, i, hot - 1)) cells[base + HOT] = 0;
    // A mash that has just lapsed because a control was hidden counts no press of this frame.
    const hasLapsed = state.phase[i] === LAPSED;
    for (let k = 0; k < controls.length; k++) {
      const control = controls[k]!;
      if (!isPressed(program, state, i, control)) continue;
      const isSameAgain = cells[base + BEFORE] === control + 1;
      cells[base + BEFORE] = control + 1;
      if (hasLapsed || (pattern.alternate && isSameAgain)) continue;
      const count = countPress(program, pattern, state, control);
      const isQuick = count === pattern.count && now - cells[first + 1]! <= pattern.withinTicks;
      if (isQuick && state.phase[i] !== FIRED) fireMash(program, pattern, state, trace, i, control);
    }
    const count = cells[base + COUNT]!;
    if (count > 0 && now - cells[first + 2 * count - 1]! > pattern.withinTicks) cells[base + COUNT] = 0;
    const isAlive = cells[base + COUNT]! > 0;
    setPhase(state, i, cells[base + HOT]! > 0 ? SUSTAINED : isAlive ? FORMING : IDLE);
    if (isAlive) sleepUntil(state, i, cells[first + 2 * count - 1]! + pattern.withinTicks);
  },
  remembers(_program, { base }, { cells }, key) {
    const first = base + MASH_CELLS;
    for (let k = 0; k < cells[base + COUNT]!; k++) if (cells[first + 2 * k] === key) return true;
    return false;
  },
};
