import type { CloseListener } from "../../document/history";
import type { TapeHandle } from "../model/handles";
import type { StrokeResult } from "../model/stroke";
import type { TapeGroup } from "../model/tapeRows";
import type { TapeView } from "../model/tapeView";

/** A mark or a stretch that was clicked. */
export interface TapeChoice {
  /** −1 below the last row. */
  readonly row: number;
  readonly frame: number;
  /** The note of the nearest mark, −1 when there is none. */
  readonly note: number;
}

/** What hears of what hands do on the tape. */
export interface TapeListener {
  /** The ends that can be pulled on a row, about some frames. */
  readonly handlesOf: (
    row: number,
    within: { readonly from: number; readonly to: number },
  ) => readonly TapeHandle[];
  /** A pull: begun, moved to so many frames (the words come back), ended, or broken off. `drop`: see TapeSurface. */
  readonly onPullBegin: (handle: TapeHandle, drop: () => void) => void;
  readonly onPull: (handle: TapeHandle, frames: number) => string;
  readonly onPullEnd: (isCancelled: boolean) => void;
  /** A stroke of the brush begins; `onClosed` hears if it is closed from outside. Returns what ends its step. */
  readonly onStrokeBegin: (onClosed: CloseListener) => () => void;
  /** A stroke of the brush on a lane's row. */
  readonly onStroke: (row: number, result: StrokeResult) => void;
  /** A stretch swept over the ruler with Shift. */
  readonly onStretch: (from: number, to: number) => void;
  readonly onHover: (frame: number, x: number, y: number) => void;
  readonly onChoose: (choice: TapeChoice) => void;
  readonly onRow: (row: number) => void;
  readonly onFold: (group: TapeGroup) => void;
  /** A row dragged by one place; false where it can go no farther. The model has it there at once. */
  readonly onMoveRow: (row: number, by: 1 | -1) => boolean;
  readonly onScrub: (frame: number) => void;
  readonly onView: (view: TapeView) => void;
}
