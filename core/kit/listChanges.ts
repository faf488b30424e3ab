/** One difference between two documents: its path in the second, with both values. */
export interface Change {
  readonly path: readonly (string | number)[];
  readonly was: unknown;
  readonly is: unknown;
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const idOf = (item: unknown) => (isRecord(item) ? item.id : undefined);

/** Returns whether two lists hold the same items in the same order, compared by id if they have ids. */
function isSameOrder(was: readonly unknown[], is: readonly unknown[]): boolean {
  return was.length === is.length && was.every((item, k) => idOf(item) === idOf(is[k]));
}

/**
 * Returns every difference between two documents, at the deepest level. Lists with other items or another
 * order differ as a whole. Empty if the documents are equal.
 */
export function listChanges(was: unknown, is: unknown, path: readonly (string | number)[] = []): Change[] {
  if (was === is) return [];
  if (Array.isArray(was) && Array.isArray(is) && isSameOrder(was, is))
    return was.flatMap((item, k) => listChanges(item, is[k], [...path, k]));
  if (isRecord(was) && isRecord(is)) {
    const keys = [...new Set([...Object.keys(was), ...Object.keys(is)])];
    return keys.flatMap(key => listChanges(was[key], is[key], [...path, key]));
  }
  return JSON.stringify(was) === JSON.stringify(is) ? [] : [{ path, was, is }];
}
