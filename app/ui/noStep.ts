import type { DragStep } from "./Stone";

/** Returns the step of a drag of a number that is no part of the document; `cancel` puts back what it was. */
export const noStep = (cancel: () => void = () => undefined): DragStep => ({
  run: edits => edits(),
  end: () => undefined,
  cancel,
});
