import type { PointerEvent } from "react";
import { followPointer } from "../ui/followPointer";
import { beginGesture } from "./workbench";

/** Lets a pointer that was pressed edit the kit while it moves: one step of undo, and none when it is broken off. */
export function dragKit(event: PointerEvent<Element>, edit: (moved: globalThis.PointerEvent) => void): void {
  const gesture = beginGesture();
  followPointer(event, {
    move(moved) {
      edit(moved);
      gesture.edited();
    },
    end: gesture.end,
    cancel: gesture.cancel,
  });
}
