import type { PointerEvent } from "react";

/** What a hand does between taking hold of something and letting it go. */
export interface Hold {
  readonly move: (moved: globalThis.PointerEvent) => void;
  readonly end: () => void;
  /** Escape, or the system took the pointer away: what was begun is to be undone. */
  readonly cancel: () => void;
}

/** Follows the pointer that was pressed on an element, wherever it goes, until it is let go or broken off. */
export function followPointer(event: PointerEvent<Element>, hold: Hold): void {
  const target = event.currentTarget as HTMLElement;
  const ending = new AbortController();
  const { signal } = ending;
  const finish = (last: () => void) => () => {
    ending.abort();
    last();
  };
  target.setPointerCapture(event.pointerId);
  target.addEventListener("pointermove", hold.move, { signal });
  target.addEventListener("pointerup", finish(hold.end), { signal });
  target.addEventListener("pointercancel", finish(hold.cancel), { signal });
  const breakOff = finish(hold.cancel);
  window.addEventListener("keydown", pressed => pressed.key === "Escape" && breakOff(), { signal });
}
