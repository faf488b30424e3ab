import type { PointerEvent } from "react";
import { followPointer } from "../ui/followPointer";
import type { Workbench } from "./workbench";

/**
 * Lets a pointer that was pressed edit the kit while it moves, and where it was pressed already if `isAtOnce`: one step
 * of undo, none when Escape takes it back. An undo, another edit, take or view ends it with its edits kept as one step. A
 * second finger begins no drag.
 */
export function dragKit(
  workbench: Pick<Workbench, "beginStep">,
  event: PointerEvent<Element>,
  edit: (moved: globalThis.PointerEvent) => void,
  isAtOnce = false,
): void {
  if (!event.isPrimary) return;
  const step = workbench.beginStep(() => stop());
  const stop = followPointer(event, {
    move: moved => step.run(() => edit(moved)),
    end: step.end,
    cancel: step.cancel,
  });
  if (isAtOnce) step.run(() => edit(event.nativeEvent));
}
