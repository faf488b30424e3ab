import { useCallback, useSyncExternalStore } from "react";

/** The media query of the variant `narrow` in tokens.css: the columns of a view lie below each other. */
export const NARROW = "(width < 840px)";

/** Windows in which the header has no room for all views and the sum of checks: its views are a menu. */
export const SHORT_HEADER = "(width < 960px)";

/** Returns whether a media query holds; false on the server, and until the page is hydrated. */
export function useMedia(query: string): boolean {
  const subscribe = useCallback(
    (listener: () => void) => {
      const media = matchMedia(query);
      media.addEventListener("change", listener);
      return () => media.removeEventListener("change", listener);
    },
    [query],
  );
  return useSyncExternalStore(
    subscribe,
    () => matchMedia(query).matches,
    () => false,
  );
}

function onResize(listener: () => void): () => void {
  window.addEventListener("resize", listener);
  return () => window.removeEventListener("resize", listener);
}

/** Returns the height of the window in px, also after it has changed. */
export function useWindowHeight(): number {
  return useSyncExternalStore(
    onResize,
    () => window.innerHeight,
    () => 800,
  );
}
