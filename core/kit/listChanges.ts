import { ownValue } from "../formats/ownValue";
import { deleteAt, writeAt } from "./editAt";

/** One difference between two documents: its path in the second, with both values. */
export interface Change {
  readonly path: readonly (string | number)[];
  readonly before: unknown;
  readonly after: unknown;
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const idOf = (item: unknown) => (isRecord(item) ? item.id : undefined);

/** Returns whether two lists hold the same items in the same order, compared by id if they have ids. */
function isSameOrder(before: readonly unknown[], after: readonly unknown[]): boolean {
  return before.length === after.length && before.every((item, k) => idOf(item) === idOf(after[k]));
}

/**
 * Returns every difference between two documents, at the deepest level. Lists with other items or another
 * order differ as a whole. Empty if the documents are equal.
 */
export function listChanges(
  before: unknown,
  after: unknown,
  path: readonly (string | number)[] = [],
): Change[] {
  if (before === after) return [];
  if (Array.isArray(before) && Array.isArray(after) && isSameOrder(before, after))
    return before.flatMap((item, k) => listChanges(item, after[k], [...path, k]));
  if (isRecord(before) && isRecord(after)) {
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
    return keys.flatMap(key => listChanges(ownValue(before, key), ownValue(after, key), [...path, key]));
  }
  return JSON.stringify(before) === JSON.stringify(after) ? [] : [{ path, before, after }];
}

/** Returns a document in which one change is taken back; the others of a list of changes stay valid. */
export function takeBackChange<T>(document: T, { path, before }: Change): T {
  return before === undefined ? deleteAt(document, path) : writeAt(document, path, before);
}
