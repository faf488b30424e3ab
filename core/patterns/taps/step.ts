import { isDown, isPressed, nowTicks } from "../../program/sight";
import { edgeKey, type Program } from "../../program/program";
import type { TapsProgram } from "./program";
import { sleepUntil } from "../../program/sleep";
import { FORMING, IDLE, SUSTAINED, type State } from "../../program/state";
import type { Trace } from "../../trace/trace";
import { addEdge, beginFire, endFire, lapse, setPhase, type PatternStepper } from "../fire";

/**
 * Cells: presses in the chain, start of the last, whether it is still down, whether the fired press is still
 * down, then the frames of the presses.
 */
const COUNT = 0;
const LAST = 1;
const HELD = 2;
const HOT = 3;
export const TAPS_CELLS = 4;

function fireChain(program: Program, pattern: TapsProgram, state: State, trace: Trace, i: number): void {
  const { base, control } = pattern;
  const count = state.cells[base + COUNT]!;
  beginFire(state, i);
  for (let k = 0; k < count; k++) {
    addEdge(program, state, i, edgeKey(state.cells[base + TAPS_CELLS + k]!, control, program.sourceCount));
  }
  endFire(program, state, trace, i, count);
  state.cells[base + HOT] = 1;
}

/** Ends a chain after a press or a gap that was too long. */
function endChain(program: Program, pattern: TapsProgram, state: State, trace: Trace, i: number): void {
  const cells = state.cells;
  const base = pattern.base;
  const ageTicks = nowTicks(pattern, state) - cells[base + LAST]!;
  if (cells[base + HELD] === 1 && ageTicks > pattern.maxTicks) {
    lapse(state, trace, i, "too-long");
    cells[base + HOT] = 0;
  } else if (ageTicks > pattern.gapTicks) {
    if (pattern.answer === "final") fireChain(program, pattern, state, trace, i);
    else if (pattern.answer === "nth") {
      lapse(state, trace, i, "too-slow");
      cells[base + HOT] = 0;
    }
  } else return;
  cells[base + COUNT] = 0;
}

function joinChain(program: Program, pattern: TapsProgram, state: State, trace: Trace, i: number): void {
  const cells = state.cells;
  const base = pattern.base;
  const count = cells[base + COUNT]! + 1;
  cells[base + HOT] = 0;
  cells[base + COUNT] = count;
  cells[base + LAST] = nowTicks(pattern, state);
  cells[base + HELD] = 1;
  cells[base + TAPS_CELLS + count - 1] = state.frame;
  if (count === pattern.count || pattern.answer === "each") fireChain(program, pattern, state, trace, i);
  if (count === pattern.count) cells[base + COUNT] = 0;
}

/** Returns the number of taps in the current chain. */
export function tapsMade({ base }: TapsProgram, { cells }: State): number {
  return cells[base + COUNT]!;
}

export const tapsStepper: PatternStepper<TapsProgram> = {
  step(program, pattern, state, trace, i) {
    const { base, control } = pattern;
    const cells = state.cells;
    if (cells[base + COUNT]! > 0) endChain(program, pattern, state, trace, i);
    if (!isDown(program, state, i, control)) cells[base + HELD] = cells[base + HOT] = 0;
    else if (isPressed(program, state, i, control)) joinChain(program, pattern, state, trace, i);
    const isAlive = cells[base + COUNT]! > 0;
    setPhase(state, i, cells[base + HOT] === 1 ? SUSTAINED : isAlive ? FORMING : IDLE);
    if (isAlive) {
      const longest =
        cells[base + HELD] === 1 ? Math.min(pattern.maxTicks, pattern.gapTicks) : pattern.gapTicks;
      sleepUntil(state, i, cells[base + LAST]! + longest);
    }
  },
  remembers(program, { base, control }, { cells }, key) {
    const first = base + TAPS_CELLS;
    for (let k = 0; k < cells[base + COUNT]!; k++)
      if (edgeKey(cells[first + k]!, control, program.sourceCount) === key) return true;
    return false;
  },
};
