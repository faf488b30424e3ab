import type { DragStep } from "./Stone";

/** Returns the drag step of a number outside the document; `cancel` restores the old value. */
export const noStep = (cancel: () => void = () => undefined): DragStep => ({
  run: edits => edits(),
  end: () => undefined,
  cancel,
});
