import { useLayoutEffect, useRef, type RefObject } from "react";

/** A store whose state can change on every frame. */
export interface Watched<S> {
  readonly getState: () => S;
  readonly subscribe: (listener: (state: S) => void) => () => void;
}

/**
 * Returns a ref to an element that `write` brings up to date at every change of a store, without a render. Play changes some
 * states on every frame; as many renders would end each longer render that React has begun, such as that of a view. An element
 * whose contents the browser skips (`content-visibility`) is brought up to date when it comes near the screen.
 */
export function useWriter<E extends Element, S>(
  store: Watched<S>,
  write: (element: E, state: S) => void,
): RefObject<E | null> {
  const element = useRef<E>(null);
  const isSkipped = useRef(false);
  useLayoutEffect(() => {
    const own = element.current;
    const update = (state: S) => {
      if (own && !isSkipped.current) write(own, state);
    };
    const turn = (event: Event) => {
      isSkipped.current = (event as ContentVisibilityAutoStateChangeEvent).skipped;
      update(store.getState());
    };
    update(store.getState());
    own?.addEventListener("contentvisibilityautostatechange", turn);
    const unsubscribe = store.subscribe(update);
    return () => {
      own?.removeEventListener("contentvisibilityautostatechange", turn);
      unsubscribe();
    };
  });
  return element;
}

/** A text that follows a store, written without a render. */
export function LiveText<S>({
  store,
  read,
  className,
  testId,
}: {
  store: Watched<S>;
  read: (state: S) => string;
  className?: string;
  testId?: string;
}) {
  const text = useWriter<HTMLSpanElement, S>(store, (element, state) => {
    const words = read(state);
    if (element.textContent !== words) element.textContent = words;
  });
  return <span ref={text} className={className} data-testid={testId} />;
}
