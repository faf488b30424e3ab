import type { Kit } from "#core";

/** Kits with more items than this, parts of rules counted, are written in a worker and not run for a hint. */
const AT_ONCE_ITEMS = 600;

/** Returns the number of items in the lists of a kit, with those in the lists of its items. */
function countItems(kit: Kit): number {
  const lists = (of: object) => Object.values(of).filter(Array.isArray) as unknown[][];
  return lists(kit)
    .flat()
    .reduce<number>(
      (sum, item) => sum + 1 + (item === null || typeof item !== "object" ? 0 : lists(item).flat().length),
      0,
    );
}

/** Returns whether the rules of a kit are too many for synchronous work. */
export const isLargeKit = (kit: Kit): boolean => countItems(kit) > AT_ONCE_ITEMS;
