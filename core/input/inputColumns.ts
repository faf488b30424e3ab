import { ownValue } from "../formats/ownValue";
import { firstAbove } from "../time/rising";
import { landingFrame } from "../time/clock";
import type { Program } from "../program/program";
import { createFrameInput, type FrameInput } from "./frameInput";
import { readLane } from "./readLane";
import type { Take } from "./takeSchema";

/** A take read at a kit's rate: every change as one column entry, in frame order. Can be sent to a worker. */
export interface InputColumns {
  readonly frames: number;
  /** Whether the kit's stage takes no part in the take: its gates are as painted. */
  readonly isUnstaged: boolean;
  readonly controlFrame: Uint32Array;
  readonly controlChange: Uint32Array;
  readonly gateFrame: Uint32Array;
  readonly gateChange: Uint32Array;
  readonly speedFrame: Uint32Array;
  readonly speedPercent: Uint16Array;
}

/**
 * An upper bound on the codes of a kit. An entry is one number, frame first, so that sorting numbers sorts
 * entries.
 */
const CODES = 2 ** 20;

const entryOf = (frame: number, code: number) => frame * CODES + code;

function toColumns(entries: readonly number[]): { frame: Uint32Array; value: Uint32Array } {
  const sorted = new Float64Array(entries).sort();
  const frame = new Uint32Array(sorted.length);
  const value = new Uint32Array(sorted.length);
  for (let k = 0; k < sorted.length; k++) {
    frame[k] = sorted[k]! / CODES;
    value[k] = sorted[k]! % CODES;
  }
  return { frame, value };
}

/** Keeps the last of several changes of a gate or of the speed on one frame. */
function lastOfEachFrame(
  lane: readonly (readonly [number, number])[],
  kitRateHz: number,
  takeRateHz: number,
  frames: number,
) {
  const landed: [number, number][] = [];
  for (const [x, value] of lane) {
    const frame = landingFrame(x, kitRateHz, takeRateHz);
    if (frame >= frames) break;
    if (landed.length > 0 && landed.at(-1)![0] === frame) landed.pop();
    landed.push([frame, value]);
  }
  return landed;
}

/** Returns the length of a take in frames of the kit's rate: ceil(frames × kitRate ÷ takeRate − 1e-6). */
export function countFrames(take: Take, kitRateHz: number): number {
  return landingFrame(take.frames, kitRateHz, take.rate);
}

/**
 * Reads a take for a program. Skips lanes of controls and gates the kit lacks (the tape shows them as
 * unbound) and drops changes beyond the last frame.
 */
export function readTake(program: Program, take: Take): InputColumns {
  const frames = countFrames(take, program.rateHz);
  const controls: number[] = [];
  program.controls.forEach((control, c) => {
    const lane = ownValue(take.lanes, control.id) ?? [];
    const landed = readLane(lane, control, program.rateHz, take.rate, frames);
    landed.forEach((frame, k) => controls.push(entryOf(frame, c * 2 + (k % 2 === 0 ? 1 : 0))));
  });
  const gates: number[] = [];
  program.gates.forEach((gate, g) => {
    if (gate.isOutput) return;
    const lane = ownValue(take.gates, gate.id) ?? [];
    for (const [frame, open] of lastOfEachFrame(lane, program.rateHz, take.rate, frames)) {
      gates.push(entryOf(frame, g * 2 + open));
    }
  });
  const speeds = lastOfEachFrame(take.speed ?? [], program.rateHz, take.rate, frames);
  const control = toColumns(controls);
  const gate = toColumns(gates);
  return {
    frames,
    isUnstaged: take.stage === "none",
    controlFrame: control.frame,
    controlChange: control.value,
    gateFrame: gate.frame,
    gateChange: gate.value,
    speedFrame: Uint32Array.from(speeds, s => s[0]),
    speedPercent: Uint16Array.from(speeds, s => s[1]),
  };
}

/** Walks columns frame by frame; `input` holds the frame loaded last. */
export interface InputCursor {
  readonly columns: InputColumns;
  readonly input: FrameInput;
  nextControl: number;
  nextGate: number;
  nextSpeed: number;
  /** The next frame with a change; frames before it need no reading. */
  nextFrame: number;
}

/** Creates a cursor before frame 0. */
export function createInputCursor(program: Program, columns: InputColumns): InputCursor {
  const input = createFrameInput(program.controls.length, program.gates.length);
  return { columns, input, nextControl: 0, nextGate: 0, nextSpeed: 0, nextFrame: 0 };
}

/** Moves the cursor before `frame`, to continue from a restored state; restores the speed in force. */
export function seekInput(cursor: InputCursor, frame: number): void {
  const { controlFrame, gateFrame, speedFrame, speedPercent } = cursor.columns;
  cursor.nextControl = firstAbove(controlFrame, frame - 1);
  cursor.nextGate = firstAbove(gateFrame, frame - 1);
  cursor.nextSpeed = firstAbove(speedFrame, frame - 1);
  cursor.nextFrame = frame;
  cursor.input.speedPercent = cursor.nextSpeed > 0 ? speedPercent[cursor.nextSpeed - 1]! : 100;
}

/** Loads the changes of `frame` into the cursor's input. Frames must be loaded in order. */
export function loadInput(cursor: InputCursor, frame: number): FrameInput {
  const { columns, input } = cursor;
  input.changeCount = 0;
  input.gateChangeCount = 0;
  if (frame < cursor.nextFrame) return input;
  while (
    cursor.nextControl < columns.controlFrame.length &&
    columns.controlFrame[cursor.nextControl] === frame
  ) {
    input.changes[input.changeCount++] = columns.controlChange[cursor.nextControl++]!;
  }
  while (cursor.nextGate < columns.gateFrame.length && columns.gateFrame[cursor.nextGate] === frame) {
    input.gateChanges[input.gateChangeCount++] = columns.gateChange[cursor.nextGate++]!;
  }
  while (cursor.nextSpeed < columns.speedFrame.length && columns.speedFrame[cursor.nextSpeed] === frame) {
    input.speedPercent = columns.speedPercent[cursor.nextSpeed++]!;
  }
  cursor.nextFrame = Math.min(
    columns.controlFrame[cursor.nextControl] ?? Infinity,
    columns.gateFrame[cursor.nextGate] ?? Infinity,
    columns.speedFrame[cursor.nextSpeed] ?? Infinity,
  );
  return input;
}
