/**
 * Returns the value that a record itself has under a key; undefined if it has none. Ids from documents may be
 * named like members that every object inherits, such as `constructor` or `__proto__`.
 */
export function ownValue<T>(record: Readonly<Record<string, T>> | undefined, key: string): T | undefined {
  return record !== undefined && Object.hasOwn(record, key) ? record[key] : undefined;
}

/** Returns an empty record that inherits nothing, so that any id can be written to it, also `__proto__`. */
export function createRecord<T>(): Record<string, T> {
  return Object.create(null) as Record<string, T>;
}
