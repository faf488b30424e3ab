import { createRecord } from "#core";
/** Any part of a document. */
type Json = unknown;
type JsonObject = Readonly<Record<string, Json>>;

const isObject = (value: Json): value is JsonObject =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const isSame = (a: Json, b: Json) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Returns the identity of a list item: its id, or its whole content. */
function keyOf(item: Json): string {
  return isObject(item) && typeof item.id === "string" ? item.id : JSON.stringify(item);
}

function putBackList(before: readonly Json[], after: readonly Json[], now: readonly Json[]): readonly Json[] {
  const was = new Map(before.map(item => [keyOf(item), item]));
  const became = new Map(after.map(item => [keyOf(item), item]));
  const kept = now.flatMap(item => {
    const key = keyOf(item);
    if (was.has(key) && became.has(key)) return [putBack(was.get(key), became.get(key), item)];
    const isAddedByEdit = became.has(key) && !was.has(key);
    return isAddedByEdit && isSame(item, became.get(key)) ? [] : [item];
  });
  const result = [...kept];
  before.forEach((item, place) => {
    const key = keyOf(item);
    if (became.has(key) || result.some(other => keyOf(other) === key)) return;
    const earlier = before.slice(0, place).map(keyOf);
    const at = result.findLastIndex(other => earlier.includes(keyOf(other)));
    result.splice(at + 1, 0, item);
  });
  const isUnchanged = result.length === now.length && result.every((item, k) => item === now[k]);
  return isUnchanged ? now : result;
}

function putBackObject(before: JsonObject, after: JsonObject, now: JsonObject): JsonObject {
  const result: Record<string, Json> = Object.assign(createRecord<Json>(), now);
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    if (Object.hasOwn(before, key) === Object.hasOwn(after, key) && before[key] === after[key]) continue;
    if (!Object.hasOwn(before, key)) {
      if (Object.hasOwn(now, key) && isSame(now[key], after[key])) delete result[key];
    } else if (!Object.hasOwn(now, key)) {
      if (!Object.hasOwn(after, key)) result[key] = before[key];
    } else if (Object.hasOwn(after, key)) result[key] = putBack(before[key], after[key], now[key]);
    else if (Array.isArray(before[key]) && Array.isArray(now[key]))
      result[key] = putBackList(before[key], [], now[key]);
  }
  const keys = Object.keys(result);
  const isUnchanged = keys.length === Object.keys(now).length && keys.every(key => result[key] === now[key]);
  return isUnchanged ? now : { ...result };
}

/**
 * Reverts one edit of a document that has been edited since: restores exactly what that edit changed, unless
 * it was changed again; everything else stays. Items removed from a list return after the nearest of their
 * old neighbours. `before` and `after` are the document around the edit. Without later edits the result
 * equals `before`; if nothing is left to revert it is `now` itself.
 */
export function putBack<T>(before: T, after: T, now: T): T {
  if (before === after) return now;
  if (isSame(now, after)) return before;
  if (Array.isArray(before) && Array.isArray(after) && Array.isArray(now))
    return putBackList(before, after, now) as T;
  if (isObject(before) && isObject(after) && isObject(now)) return putBackObject(before, after, now) as T;
  return now;
}
