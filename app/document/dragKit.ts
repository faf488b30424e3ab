import type { PointerEvent } from "react";
import { followPointer } from "../ui/followPointer";
import { beginGesture, workbench } from "./workbench";

/**
 * Lets a pointer that was pressed edit the kit while it moves, and where it was pressed already if `isAtOnce`: one step
 * of undo, and none when it is broken off.
 */
export function dragKit(
  event: PointerEvent<Element>,
  edit: (moved: globalThis.PointerEvent) => void,
  isAtOnce = false,
): void {
  const gesture = beginGesture();
  const move = (moved: globalThis.PointerEvent) => {
    const { kit } = workbench.getState();
    edit(moved);
    // Only a change is an edit: the first one is the step that undo takes back.
    if (workbench.getState().kit !== kit) gesture.edited();
  };
  followPointer(event, { move, end: gesture.end, cancel: gesture.cancel });
  if (isAtOnce) move(event.nativeEvent);
}
