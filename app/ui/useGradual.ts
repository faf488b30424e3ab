import { startTransition, useEffect, useState } from "react";

/** The number of items that are rendered at once: more than a screen shows, few enough for one task. */
const ITEMS_AT_ONCE = 50;

/**
 * Returns how many items of a list to render: up to 50 at first, then more and more in renders that input interrupts, until all are.
 * A list of a thousand lines would otherwise block the page for a second.
 */
export function useGradual(count: number): number {
  const [shown, setShown] = useState(ITEMS_AT_ONCE);
  const isAll = shown >= count;
  useEffect(() => {
    if (!isAll) startTransition(() => setShown(shown + ITEMS_AT_ONCE));
  }, [shown, isAll]);
  return isAll ? count : shown;
}
