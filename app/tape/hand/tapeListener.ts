import type { CloseListener } from "../../document/history";
import type { TapeHandle } from "../model/handles";
import type { StrokeResult } from "../model/stroke";
import type { TapeGroup } from "../model/tapeRows";
import type { TapeView } from "../model/tapeView";

/** A clicked mark or stretch. */
export interface TapeChoice {
  /** −1 below the last row. */
  readonly row: number;
  readonly frame: number;
  /** The note of the nearest mark, −1 if there is none. */
  readonly note: number;
}

/** The callbacks of the tape's gestures. */
export interface TapeListener {
  /** Returns the handles of a row, near some frames. */
  readonly handlesOf: (
    row: number,
    within: { readonly from: number; readonly to: number },
  ) => readonly TapeHandle[];
  /**
   * A pull: started, moved to a number of frames (returns the words beside the pointer), ended, or cancelled.
   * `drop`: see TapeSurface.
   */
  readonly onPullBegin: (handle: TapeHandle, drop: () => void) => void;
  readonly onPull: (handle: TapeHandle, frames: number) => string;
  readonly onPullEnd: (isCancelled: boolean) => void;
  /**
   * A stroke of the brush starts; `onClosed` is called if it is closed from outside. Returns a function that
   * ends its step.
   */
  readonly onStrokeBegin: (onClosed: CloseListener) => () => void;
  /** A stroke of the brush on a lane's row. */
  readonly onStroke: (row: number, result: StrokeResult) => void;
  /** A stretch was selected on the ruler with Shift. */
  readonly onStretch: (from: number, to: number) => void;
  readonly onHover: (frame: number, x: number, y: number) => void;
  readonly onChoose: (choice: TapeChoice) => void;
  readonly onRow: (row: number) => void;
  readonly onFold: (group: TapeGroup) => void;
  /** A row was dragged by one place; returns false at either end. The model is updated at once. */
  readonly onMoveRow: (row: number, by: 1 | -1) => boolean;
  readonly onScrub: (frame: number) => void;
  readonly onView: (view: TapeView) => void;
}
