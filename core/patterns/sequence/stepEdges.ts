import { isAnyPressed, isPressed, isReleased, nowTicks, pressTicks, wasDown } from "../../program/sight";
import { edgeKey, type Program } from "../../program/program";
import type { SequenceProgram, StepProgram } from "./program";
import type { State } from "../../program/state";
import { areAllDown, pressSpread } from "../chord/step";
import { directionBegan, directionTicks, FLOOR, isDirectionEdge } from "./directions";

/** The edges a completed step uses: `serve` identifies each edge, `report` is reported by the fire. */
export interface StepEdges {
  count: number;
  serve: Float64Array;
  report: Float64Array;
}

/** Allocates room for the edges of one step. */
export function createStepEdges(room: number): StepEdges {
  return { count: 0, serve: new Float64Array(room), report: new Float64Array(room) };
}

function use(found: StepEdges, serve: number, report: number): void {
  found.serve[found.count] = serve;
  found.report[found.count] = report;
  found.count++;
}

function usePress(program: Program, state: State, control: number, found: StepEdges): void {
  const key = edgeKey(state.pressFrame[control]!, control, program.sourceCount);
  use(found, key, key);
}

function oldestPress(state: State, controls: readonly number[]): number {
  let oldest = Infinity;
  for (let k = 0; k < controls.length; k++) oldest = Math.min(oldest, state.pressFrame[controls[k]!]!);
  return oldest;
}

/**
 * Finds whether a step is complete on this frame, and its edges. Edges from before the floor (consumed by a
 * fire or a cancel) do not count. A release edge is distinct from the press before it, which is reported in
 * its place. Returns false and no edges if the step is not complete.
 */
export function findStepEdges(
  program: Program,
  pattern: SequenceProgram,
  state: State,
  i: number,
  step: StepProgram,
  found: StepEdges,
): boolean {
  found.count = 0;
  const floor = state.cells[pattern.base + FLOOR]!;
  switch (step.does) {
    case "press":
      if (isPressed(program, state, i, step.control)) usePress(program, state, step.control, found);
      break;
    case "release":
      if (isReleased(program, state, i, step.control)) {
        const serve = -1 - edgeKey(state.frame, step.control, program.sourceCount);
        use(found, serve, edgeKey(state.pressFrame[step.control]!, step.control, program.sourceCount));
      }
      break;
    case "hold": {
      if (!wasDown(program, state, i, step.control) || state.pressFrame[step.control]! < floor) break;
      const ageTicks = nowTicks(pattern, state) - pressTicks(pattern, state, step.control);
      if (ageTicks >= step.forTicks) usePress(program, state, step.control, found);
      break;
    }
    case "dir":
      if (isDirectionEdge(pattern, state, step.slot, step.digit)) {
        const key = edgeKey(state.frame, program.controls.length + step.stick, program.sourceCount);
        use(found, key, key);
      }
      break;
    case "face": {
      const began = directionBegan(pattern, state, step.slot, step.digit);
      if (
        began < floor ||
        nowTicks(pattern, state) - directionTicks(pattern, state, step.slot) < step.forTicks
      )
        break;
      const key = edgeKey(began, program.controls.length + step.stick, program.sourceCount);
      use(found, key, key);
      break;
    }
    case "together":
      if (!areAllDown(program, state, i, step.controls) || !isAnyPressed(program, state, i, step.controls))
        break;
      if (pressSpread(pattern, state, step.controls) > step.withinTicks) break;
      if (oldestPress(state, step.controls) < floor) break;
      for (let k = 0; k < step.controls.length; k++) usePress(program, state, step.controls[k]!, found);
      break;
  }
  return found.count > 0;
}
