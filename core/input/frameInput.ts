/** The input of one frame. Reused from frame to frame. */
export interface FrameInput {
  /** Controls that change on this frame, at most once each: control × 2 + (1 if down). */
  changeCount: number;
  changes: Uint32Array;
  /** Gates painted open or closed from this frame on: gate × 2 + (1 if open). */
  gateChangeCount: number;
  gateChanges: Uint32Array;
  /** The take's speed on this frame, in percent. */
  speedPercent: number;
}

/** Creates an empty frame input with room for every control and gate. */
export function createFrameInput(controls: number, gates: number): FrameInput {
  return {
    changeCount: 0,
    changes: new Uint32Array(Math.max(1, controls)),
    gateChangeCount: 0,
    gateChanges: new Uint32Array(Math.max(1, gates)),
    speedPercent: 100,
  };
}
