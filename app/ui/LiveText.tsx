import { useLayoutEffect, useRef, type RefObject } from "react";

/** A store whose state can change on every frame. */
export interface Watched<S> {
  readonly getState: () => S;
  readonly subscribe: (listener: (state: S) => void) => () => void;
}

/**
 * Returns a ref to an element that `write` brings up to date at every change of a store, without a render. Play changes some
 * states on every frame; as many renders would end each longer render that React has begun, such as that of a view.
 */
export function useWriter<E extends Element, S>(
  store: Watched<S>,
  write: (element: E, state: S) => void,
): RefObject<E | null> {
  const element = useRef<E>(null);
  useLayoutEffect(() => {
    const update = (state: S) => {
      if (element.current) write(element.current, state);
    };
    update(store.getState());
    return store.subscribe(update);
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
