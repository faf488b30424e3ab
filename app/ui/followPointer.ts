import type { PointerEvent } from "react";

/** The callbacks of a drag. Exactly one of `end` and `cancel` is called, once, unless the drag is stopped. */
export interface Hold {
  readonly move: (moved: globalThis.PointerEvent) => void;
  /** Let go (`isUp`), or taken away: by the system, by a window that lost the focus, by an element that left the page. */
  readonly end: (isUp: boolean) => void;
  /** Escape: what the drag did is to be undone. */
  readonly cancel: () => void;
}

/**
 * Follows one pointer that was pressed on an element, wherever it goes, and no other. Listens on the window, so that an
 * element that is drawn anew or leaves the page does not leave the drag without an end. Returns a function that stops it
 * without any callback.
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
  // Not captured: a field that loses the focus to what is pressed has a blur of its own, which does not bubble up to here.
  window.addEventListener("blur", () => finish(() => hold.end(false)), { signal: ending.signal });
  window.addEventListener(
    "keydown",
    pressed => {
      if (pressed.key !== "Escape") return;
      // An element that has left the page ended its drag when it left.
      if (target.isConnected === false) return finish(() => hold.end(false));
      pressed.stopPropagation();
      finish(hold.cancel);
    },
    options,
  );
  return stop;
}
