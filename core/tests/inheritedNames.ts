/** Names of members that every object inherits: legal ids, on which a lookup without care fails. */
export const INHERITED = [
  "__proto__",
  "constructor",
  "toString",
  "valueOf",
  "hasOwnProperty",
  "isPrototypeOf",
  "toLocaleString",
  "propertyIsEnumerable",
  "__defineGetter__",
] as const;

/**
 * Returns a document with ids renamed: every text and every key that equals an id, also
 * after `gate:` and `ban:` in the reason of a loss, and after `out:` in the name of an output gate. The document must
 * use the ids for nothing else.
 */
export function renameIds<T>(document: T, names: ReadonlyMap<string, string>): T {
  const text = JSON.stringify(document).replace(
    /"((?:(?:gate|ban):)?(?:out:)?)([^"\\]*)"/g,
    (whole, before = "", id: string) => {
      const name = names.get(id);
      return name === undefined ? whole : `"${before}${name}"`;
    },
  );
  return JSON.parse(text) as T;
}
