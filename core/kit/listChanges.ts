/** One place in which two documents differ: by its path in the second, with what stood and what stands there. */
export interface Change {
  readonly path: readonly (string | number)[];
  readonly was: unknown;
  readonly is: unknown;
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const idOf = (item: unknown) => (isRecord(item) ? item.id : undefined);

/** Do two lists hold the same things in the same order, by their ids where they have some? */
function isSameOrder(was: readonly unknown[], is: readonly unknown[]): boolean {
  return was.length === is.length && was.every((item, k) => idOf(item) === idOf(is[k]));
}

/**
 * Every place in which one document differs from another, as deep as it goes; lists that hold other things, or in another
 * order, differ as a whole. Nothing where the two are the same.
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
