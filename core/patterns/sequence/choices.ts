import type { Program } from "../../program/program";
import type { SequenceProgram } from "./program";
import { growPool, type State } from "../../program/state";
import { directionNowBegan } from "./directions";
import { isDown } from "../../program/sight";
import type { StepEdges } from "./stepEdges";

/**
 * A choice of frames for the first steps of a sequence, as one row of numbers: steps made, ticks of the
 * first, ticks of the last, edges used, the frame of each step, the edges it consumes, the edges it reports.
 */
export const MADE = 0;
export const FIRST_TICKS = 1;
export const LAST_TICKS = 2;
export const EDGES = 3;
export const FRAMES = 4;

/** Returns the length of a row. `edgeRoom` is the maximum number of edges all steps use together. */
export function choiceStride(steps: number, edgeRoom: number): number {
  return FRAMES + steps + 2 * edgeRoom;
}

function serveAt(pattern: SequenceProgram): number {
  return FRAMES + pattern.steps.length;
}

/** Drops choices whose time is over, or all of them; returns the number that remain. */
export function dropLate(pattern: SequenceProgram, state: State, stride: number, now: number): number {
  const rows = state.choices[pattern.choices]!;
  const count = state.choiceCount[pattern.choices]!;
  let kept = 0;
  for (let r = 0; r < count; r++) {
    const at = r * stride;
    const next = pattern.steps[rows[at + MADE]!]!;
    if (now - rows[at + LAST_TICKS]! > next.gapTicks || now - rows[at + FIRST_TICKS]! > pattern.totalTicks)
      continue;
    if (kept !== r) rows.copyWithin(kept * stride, at, at + stride);
    kept++;
  }
  state.choiceCount[pattern.choices] = kept;
  return kept;
}

/** Returns the earliest time at which a choice is too old for its next step, in ticks of the sequence's clock. */
export function firstEnd(pattern: SequenceProgram, state: State, stride: number): number {
  const rows = state.choices[pattern.choices]!;
  let first = Infinity;
  for (let r = 0; r < state.choiceCount[pattern.choices]!; r++) {
    const at = r * stride;
    const { gapTicks } = pattern.steps[rows[at + MADE]!]!;
    first = Math.min(first, rows[at + LAST_TICKS]! + gapTicks, rows[at + FIRST_TICKS]! + pattern.totalTicks);
  }
  return first;
}

function usesAny(rows: Float64Array, at: number, serveFrom: number, found: StepEdges): boolean {
  const used = rows[at + EDGES]!;
  for (let e = 0; e < used; e++) {
    for (let k = 0; k < found.count; k++) if (rows[at + serveFrom + e] === found.serve[k]) return true;
  }
  return false;
}

/**
 * Adds every choice that this step completes on this frame: from the empty choice (step 0), or from each row
 * with `made` steps that is old enough and shares no edge. Includes rows made on this frame.
 */
export function extendChoices(
  pattern: SequenceProgram,
  state: State,
  stride: number,
  made: number,
  found: StepEdges,
  now: number,
): void {
  const list = pattern.choices;
  const before = state.choiceCount[list]!;
  const serveFrom = serveAt(pattern);
  const reportFrom = serveFrom + (stride - serveFrom) / 2;
  const step = pattern.steps[made]!;
  for (let r = made === 0 ? -1 : 0; r < (made === 0 ? 0 : before); r++) {
    let rows = state.choices[list]!;
    if (r >= 0) {
      if (rows[r * stride + MADE] !== made || now - rows[r * stride + LAST_TICKS]! < step.afterTicks)
        continue;
      if (usesAny(rows, r * stride, serveFrom, found)) continue;
    }
    const count = state.choiceCount[list]!;
    rows = state.choices[list] = growPool(rows, (count + 1) * stride);
    const at = count * stride;
    if (r >= 0) rows.copyWithin(at, r * stride, (r + 1) * stride);
    else {
      rows[at + FIRST_TICKS] = now;
      rows[at + EDGES] = 0;
    }
    const used = rows[at + EDGES]!;
    for (let k = 0; k < found.count; k++) {
      rows[at + serveFrom + used + k] = found.serve[k]!;
      rows[at + reportFrom + used + k] = found.report[k]!;
    }
    rows[at + EDGES] = used + found.count;
    rows[at + MADE] = made + 1;
    rows[at + LAST_TICKS] = now;
    rows[at + FRAMES + made] = state.frame;
    state.choiceCount[list] = count + 1;
  }
}

/**
 * Compares two choices with equal steps: positive if `a` has the later first step, then second, and so on.
 */
function compareLate(rows: Float64Array, a: number, b: number, made: number): number {
  for (let k = 0; k < made; k++) {
    const difference = rows[a + FRAMES + k]! - rows[b + FRAMES + k]!;
    if (difference !== 0) return difference;
  }
  return 0;
}

/** Returns the row of the latest complete choice, or −1 if there is none. */
export function findWhole(pattern: SequenceProgram, state: State, stride: number): number {
  const rows = state.choices[pattern.choices]!;
  const count = state.choiceCount[pattern.choices]!;
  const steps = pattern.steps.length;
  let best = -1;
  for (let r = 0; r < count; r++) {
    if (rows[r * stride + MADE] !== steps) continue;
    if (best < 0 || compareLate(rows, r * stride, best * stride, steps) > 0) best = r;
  }
  return best;
}

/** Returns the offset of a row's reported edges; their number is in the row. */
export function reportedEdges(pattern: SequenceProgram, stride: number, row: number): number {
  const serveFrom = serveAt(pattern);
  return row * stride + serveFrom + (stride - serveFrom) / 2;
}

/** Returns the highest number of steps of any live choice. */
export function bestMade(pattern: SequenceProgram, state: State, stride: number): number {
  const rows = state.choices[pattern.choices]!;
  let best = 0;
  for (let r = 0; r < state.choiceCount[pattern.choices]!; r++)
    best = Math.max(best, rows[r * stride + MADE]!);
  return best;
}

/**
 * Returns whether a later step can still use an edge of a choice: only a press still down or a direction
 * still held.
 */
function isStillWanted(
  program: Program,
  pattern: SequenceProgram,
  state: State,
  i: number,
  made: number,
  key: number,
) {
  if (key < 0) return false;
  const source = key % program.sourceCount;
  const later = pattern.steps[made]!.laterSources;
  if (!later[source]) return false;
  const frame = Math.floor(key / program.sourceCount);
  if (source < program.controls.length)
    return isDown(program, state, i, source) && state.pressFrame[source] === frame;
  const slot = pattern.sticks.indexOf(source - program.controls.length);
  return slot >= 0 && directionNowBegan(pattern, state, slot) === frame;
}

/**
 * Returns whether row `a` can become everything row `b` can, at least as late, so that `b` can be dropped.
 */
function covers(
  program: Program,
  pattern: SequenceProgram,
  state: State,
  i: number,
  a: number,
  b: number,
  now: number,
) {
  const rows = state.choices[pattern.choices]!;
  const made = rows[a + MADE]!;
  if (compareLate(rows, a, b, made) < 0 || rows[a + FRAMES + made - 1]! < rows[b + FRAMES + made - 1]!)
    return false;
  const afterTicks = pattern.steps[made]!.afterTicks;
  if (now - rows[a + LAST_TICKS]! < afterTicks && rows[a + LAST_TICKS] !== rows[b + LAST_TICKS]) return false;
  const serveFrom = serveAt(pattern);
  for (let e = 0; e < rows[a + EDGES]!; e++) {
    const key = rows[a + serveFrom + e]!;
    if (!isStillWanted(program, pattern, state, i, made, key)) continue;
    let isShared = false;
    for (let k = 0; k < rows[b + EDGES]!; k++) if (rows[b + serveFrom + k] === key) isShared = true;
    if (!isShared) return false;
  }
  return true;
}

/**
 * Drops choices covered by another, so that a long hold or many repeats do not accumulate rows. Fires are the
 * same with and without pruning; tests compare them with an exhaustive search.
 */
export function pruneChoices(
  program: Program,
  pattern: SequenceProgram,
  state: State,
  i: number,
  stride: number,
  now: number,
): void {
  const list = pattern.choices;
  const rows = state.choices[list]!;
  let count = state.choiceCount[list]!;
  for (let b = 0; b < count; b++) {
    for (let a = count - 1; a >= 0; a--) {
      if (a === b || rows[a * stride + MADE] !== rows[b * stride + MADE]) continue;
      if (!covers(program, pattern, state, i, a * stride, b * stride, now)) continue;
      count--;
      rows.copyWithin(b * stride, (b + 1) * stride, (count + 1) * stride);
      b--;
      break;
    }
  }
  state.choiceCount[list] = count;
}

/** Returns whether a live choice uses this edge, so that a later fire may report it. */
export function isInChoice(program: Program, pattern: SequenceProgram, state: State, key: number): boolean {
  const rows = state.choices[pattern.choices]!;
  const stride = program.choiceStrides[pattern.choices]!;
  for (let r = 0; r < state.choiceCount[pattern.choices]!; r++) {
    const from = reportedEdges(pattern, stride, r);
    if (rows.subarray(from, from + rows[r * stride + EDGES]!).includes(key)) return true;
  }
  return false;
}
