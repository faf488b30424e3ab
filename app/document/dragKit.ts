import type { PointerEvent } from "react";
import { followPointer } from "../ui/followPointer";
import type { Workbench } from "./workbench";

/**
 * Lets a pressed pointer edit the kit while it moves, and at once if `isAtOnce`. The drag is one step of
 * undo, or none if Escape cancels it. An undo, another edit, another take or view ends it and keeps its edits
 * as one step. A second finger starts no drag.
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
