import type { PointerEvent } from "react";

/** The callbacks of a drag. Exactly one of `end` and `cancel` is called, once, unless the drag is stopped. */
export interface Hold {
  readonly move: (moved: globalThis.PointerEvent) => void;
  /**
   * The pointer was released (`isUp`), or lost: to the system, because the window lost focus, or because the
   * element was removed.
   */
  readonly end: (isUp: boolean) => void;
  /** Escape: the drag is to be undone. */
  readonly cancel: () => void;
}

/**
 * Follows one pointer pressed on an element, and no other. Listens on the window, so that a re-rendered or
 * removed element does not leave the drag without an end. Returns a function that stops it without any
 * callback.
 */
export function followPointer(event: PointerEvent<Element>, hold: Hold): () => void {
  const target = event.currentTarget as HTMLElement;
  const { pointerId } = event;
  const ending = new AbortController();
  const options = { signal: ending.signal, capture: true };
  const stop = () => ending.abort();
  const finish = (last: () => void) => {
    stop();
    last();
  };
  const onOwn = (type: string, run: (moved: globalThis.PointerEvent) => void) =>
    window.addEventListener(
      type,
      moved => {
        if ((moved as globalThis.PointerEvent).pointerId === pointerId) run(moved as globalThis.PointerEvent);
      },
      options,
    );
  target.setPointerCapture(pointerId);
  onOwn("pointermove", hold.move);
  onOwn("pointerup", () => finish(() => hold.end(true)));
  onOwn("pointercancel", () => finish(() => hold.end(false)));
  onOwn("lostpointercapture", () => finish(() => hold.end(false)));
  // Not captured: a field that loses focus to the pressed element has a blur of its own, which does not
  // bubble up to here.
  window.addEventListener("blur", () => finish(() => hold.end(false)), { signal: ending.signal });
  window.addEventListener(
    "keydown",
    pressed => {
      if (pressed.key !== "Escape") return;
      // Removing the element ended its drag.
      if (target.isConnected === false) return finish(() => hold.end(false));
      pressed.stopPropagation();
      finish(hold.cancel);
    },
    options,
  );
  return stop;
}
