import { isDown, wasDown } from "../../program/sight";
import { edgeKey, type Program } from "../../program/program";
import type { SequenceProgram } from "./program";
import type { State } from "../../program/state";

/**
 * Cells of a sequence: steps made by the best choice, first frame whose edges count, whether the fired input
 * is still down.
 */
export const REACHED = 0;
export const FLOOR = 1;
export const HOT = 2;
const STICKS = 3;

/**
 * Cells per stick: digit in force (unmirrored), frame it began (+1, 0 unknown), ticks, the digit as mirrored
 * then.
 */
const RAW = 0;
const BEGAN = 1;
const TICKS_BEGAN = 2;
const DIGIT = 3;
/** Cells of this frame: the digit, whether it is an edge, the digit as mirrored now. */
const RAW_NOW = 4;
const IS_EDGE = 5;
const DIGIT_NOW = 6;
const STICK_CELLS = 7;

/** Returns the number of cells of a sequence with this many sticks. */
export function sequenceCells(sticks: number): number {
  return STICKS + sticks * STICK_CELLS;
}

function at(pattern: SequenceProgram, slot: number): number {
  return pattern.base + STICKS + slot * STICK_CELLS;
}

type Look = typeof isDown;

/** Returns the digit a stick shows, arranged like a number pad, through one look (now or one frame ago). */
function digitSeen(program: Program, state: State, i: number, stick: number, look: Look): number {
  const { up, down, left, right } = program.sticks[stick]!;
  const x = (look(program, state, i, right) ? 1 : 0) - (look(program, state, i, left) ? 1 : 0);
  const y = (look(program, state, i, up) ? 1 : 0) - (look(program, state, i, down) ? 1 : 0);
  return 5 + x + 3 * y;
}

/** Returns a digit with left and right swapped: 4 and 6, 7 and 9, 1 and 3. */
function mirrored(digit: number): number {
  const column = (digit - 1) % 3;
  return digit + 2 * (1 - column);
}

/**
 * Reads every stick of the sequence. Hiding changes a digit without an edge; the start of that direction is
 * then unknown.
 */
export function lookAtSticks(program: Program, pattern: SequenceProgram, state: State, i: number): void {
  for (let slot = 0; slot < pattern.sticks.length; slot++) {
    const stick = pattern.sticks[slot]!;
    const cell = at(pattern, slot);
    const before = digitSeen(program, state, i, stick, wasDown);
    if (state.cells[cell + RAW] !== before) {
      state.cells[cell + RAW] = before;
      state.cells[cell + BEGAN] = 0;
    }
    const now = digitSeen(program, state, i, stick, isDown);
    const gate = program.sticks[stick]!.mirrorGate;
    state.cells[cell + RAW_NOW] = now;
    state.cells[cell + IS_EDGE] = now === before ? 0 : 1;
    state.cells[cell + DIGIT_NOW] = gate >= 0 && state.gateOpen[gate] === 1 ? mirrored(now) : now;
  }
}

/** Stores this frame's digits as the directions in force. Call it after the steps are judged. */
export function storeDirections(pattern: SequenceProgram, state: State, nowTicks: number): void {
  for (let slot = 0; slot < pattern.sticks.length; slot++) {
    const cell = at(pattern, slot);
    if (state.cells[cell + IS_EDGE] !== 1) continue;
    state.cells[cell + RAW] = state.cells[cell + RAW_NOW]!;
    state.cells[cell + BEGAN] = state.frame + 1;
    state.cells[cell + TICKS_BEGAN] = nowTicks;
    state.cells[cell + DIGIT] = state.cells[cell + DIGIT_NOW]!;
  }
}

/** Returns whether the direction changed to this digit on this frame. */
export function isDirectionEdge(
  pattern: SequenceProgram,
  state: State,
  slot: number,
  digit: number,
): boolean {
  const cell = at(pattern, slot);
  return state.cells[cell + IS_EDGE] === 1 && state.cells[cell + DIGIT_NOW] === digit;
}

/** Returns whether the direction changed on this frame. */
export function isDirectionLeft(pattern: SequenceProgram, state: State, slot: number): boolean {
  return state.cells[at(pattern, slot) + IS_EDGE] === 1;
}

/**
 * Returns the start frame of the direction in force one frame ago if it is this digit and its start is known;
 * otherwise −1.
 */
export function directionBegan(pattern: SequenceProgram, state: State, slot: number, digit: number): number {
  const cell = at(pattern, slot);
  return state.cells[cell + DIGIT] === digit ? state.cells[cell + BEGAN]! - 1 : -1;
}

/** Returns the time at which its age starts, in ticks of the pattern's clock. */
export function directionTicks(pattern: SequenceProgram, state: State, slot: number): number {
  return state.cells[at(pattern, slot) + TICKS_BEGAN]!;
}

/** Returns the start frame of the direction in force (after settleSticks), −1 if unknown. */
export function directionNowBegan(pattern: SequenceProgram, state: State, slot: number): number {
  return state.cells[at(pattern, slot) + BEGAN]! - 1;
}

/** Returns whether this edge began a direction now in force. */
export function isDirectionInForce(
  program: Program,
  pattern: SequenceProgram,
  state: State,
  key: number,
): boolean {
  return pattern.sticks.some((stick, slot) => {
    const began = directionNowBegan(pattern, state, slot);
    return began >= 0 && edgeKey(began, program.controls.length + stick, program.sourceCount) === key;
  });
}
