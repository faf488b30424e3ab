import type { DragStep } from "./Stone";

/** The drag of a number that is no part of the document: nothing to undo when it ends or is broken off. */
export const noStep = (): DragStep => ({ end: () => undefined, cancel: () => undefined });
