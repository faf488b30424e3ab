const prevent = (event: Event) => event.preventDefault();

/**
 * A ref for a part of a drawing that is dragged: a touch on it scrolls nothing. `touch-action` has no effect on the parts of an
 * SVG, so that the browser would take the finger away for a scroll.
 */
export function keepTouch(element: Element | null): (() => void) | undefined {
  element?.addEventListener("touchstart", prevent, { passive: false });
  return () => element?.removeEventListener("touchstart", prevent);
}
