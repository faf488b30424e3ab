import type { PointerEvent } from "react";
import { followPointer } from "../ui/followPointer";
import type { Workbench } from "./workbench";

/**
 * Lets a pointer that was pressed edit the kit while it moves, and where it was pressed already if `isAtOnce`: one step
 * of undo, and none when it is broken off.
 */
export function dragKit(
  workbench: Pick<Workbench, "beginStep">,
  event: PointerEvent<Element>,
  edit: (moved: globalThis.PointerEvent) => void,
  isAtOnce = false,
): void {
  const step = workbench.beginStep();
  followPointer(event, { move: edit, end: step.end, cancel: step.cancel });
  if (isAtOnce) edit(event.nativeEvent);
}
