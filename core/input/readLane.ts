import { landingFrame } from "../time/clock";
import type { ControlProgram } from "../program/program";

/**
 * Follows one control's analog value and reports when it goes down and up, and on which frame: down at
 * `pressAt` or above, up below `releaseAt`, unchanged between the two. Each change lands at least one frame
 * after the previous one, so that no press is lost. Source: frame rules, section 2.
 */
export interface LaneReader {
  /** Whether the control is down. */
  isDown: boolean;
  /**
   * Whether the device input is held. Equals `isDown` except for a toggled control, which one press turns
   * down and the next one up.
   */
  isHeld: boolean;
  /** The frame of the last change, −1 before any. */
  lastFrame: number;
}

/** Creates the reader of a control that is up, before frame 0. */
export function createLaneReader(): LaneReader {
  return { isDown: false, isHeld: false, lastFrame: -1 };
}

/**
 * Reads one [x, value] pair that lands on `frame` or later. Returns the frame on which the control changes,
 * or −1 if the value changes nothing. A value exactly at `pressAt` is down; one exactly at `releaseAt` is not
 * yet up.
 */
export function readValue(reader: LaneReader, control: ControlProgram, frame: number, value: number): number {
  const isHeld = reader.isHeld ? value >= control.releaseAt : value >= control.pressAt;
  if (isHeld === reader.isHeld) return -1;
  reader.isHeld = isHeld;
  if (control.isToggle && !isHeld) return -1;
  reader.isDown = control.isToggle ? !reader.isDown : isHeld;
  reader.lastFrame = Math.max(frame, reader.lastFrame + 1);
  return reader.lastFrame;
}

/**
 * Returns the frames on which a lane goes down, up, down … Changes that land on `frames` or later are
 * dropped.
 */
export function readLane(
  lane: readonly (readonly [number, number])[],
  control: ControlProgram,
  kitRateHz: number,
  takeRateHz: number,
  frames: number,
): number[] {
  const reader = createLaneReader();
  const landed: number[] = [];
  for (const [x, value] of lane) {
    const at = readValue(reader, control, landingFrame(x, kitRateHz, takeRateHz), value);
    if (at >= frames) break;
    if (at >= 0) landed.push(at);
  }
  return landed;
}
