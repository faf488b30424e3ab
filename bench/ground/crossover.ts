import { INHERITED, renameIds } from "../../core/tests/inheritedNames";

type Json = unknown;
type JsonObject = Record<string, Json>;
type Chance = () => number;

const pick = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance() * list.length)]!;
const isObject = (value: Json): value is JsonObject =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Numbers and lengths at the bounds of what the schemas allow, and just beyond. */
const NUMBERS = [0, 1, 64, 65, 255, 256, 999, 1000, 1001, 1e6, 1e6 + 1, 1e9, 17_280_000, 17_280_001];
const LENGTHS = ["0f", "1f", "999999999999f", "0.001ms", "999999999999.999ms", "9999999999999f"];

/** Returns every field of a document that holds a list, with its path of keys. */
function listLists(root: Json, found: { readonly key: string; readonly list: Json[] }[] = [], key = "") {
  if (Array.isArray(root)) {
    found.push({ key, list: root });
    for (const item of root) listLists(item, found, key);
  } else if (isObject(root)) for (const [name, inner] of Object.entries(root)) listLists(inner, found, name);
  return found;
}

/** Puts items of a list of one document into the list of the same field of another, or exchanges two lists. */
function cross(chance: Chance, root: Json, other: Json): void {
  const into = pick(chance, listLists(root));
  const same = listLists(other).filter(({ key, list }) => key === into.key && list.length > 0);
  if (same.length === 0) return;
  const from = structuredClone(pick(chance, same).list);
  const action = Math.floor(chance() * 3);
  if (action === 0) into.list.push(pick(chance, from));
  else if (action === 1 && into.list.length > 0)
    into.list[Math.floor(chance() * into.list.length)] = pick(chance, from);
  else into.list.splice(0, into.list.length, ...from);
}

/** Doubles items of a list, with their ids or with new ones. */
function double(chance: Chance, root: Json): void {
  const { list } = pick(chance, listLists(root));
  const count = pick(chance, [1, 2, 60]);
  for (let k = 0; k < count && list.length > 0; k++) {
    const copy = structuredClone(pick(chance, list));
    if (isObject(copy) && typeof copy.id === "string" && chance() < 0.8) copy.id += `-${k}`;
    list.push(copy);
  }
}

/** Sets a number, or a length of time, to one at a bound. */
function bound(chance: Chance, root: Json): void {
  const places = listObjects(root).flatMap(node =>
    Object.entries(node).flatMap(([key, value]) =>
      typeof value === "number" || (typeof value === "string" && /^\d+(f|ms)$/.test(value))
        ? [{ node, key, value }]
        : [],
    ),
  );
  if (places.length === 0) return;
  const { node, key, value } = pick(chance, places);
  node[key] = typeof value === "number" ? pick(chance, NUMBERS) : pick(chance, LENGTHS);
}

function listObjects(root: Json, found: JsonObject[] = []): JsonObject[] {
  if (Array.isArray(root)) for (const item of root) listObjects(item, found);
  else if (isObject(root)) {
    found.push(root);
    for (const inner of Object.values(root)) listObjects(inner, found);
  }
  return found;
}

/** Renames some ids, wherever they occur, to names that every object inherits. */
function inherit(chance: Chance, root: Json): Json {
  const ids = listObjects(root).flatMap(({ id }) => (typeof id === "string" ? [id] : []));
  const lanes = isObject(root) && isObject(root.lanes) ? Object.keys(root.lanes) : [];
  const some = [...ids, ...lanes].filter(() => chance() < 0.3).slice(0, INHERITED.length);
  return renameIds(root, new Map(some.map((id, k) => [id, INHERITED[k]!])));
}

/** Wraps a part of a document in lists or objects, deep or very deep. */
function nest(chance: Chance, root: Json): void {
  const node = pick(chance, listObjects(root));
  const key = pick(chance, Object.keys(node));
  let inner = node[key];
  for (let depth = pick(chance, [1, 20, 33, 500]); depth > 0; depth--)
    inner = chance() < 0.5 ? [inner] : { inner };
  node[key] = inner;
}

/**
 * Returns a document made of two valid ones: parts exchanged or doubled, numbers at their bounds, ids named
 * like inherited members, rarely parts nested too deep. Most remain valid; deterministic for the generator.
 */
export function crossDocuments(chance: Chance, text: string, otherText: string): string {
  let root: Json = JSON.parse(text);
  const other: Json = JSON.parse(otherText);
  for (let n = 1 + Math.floor(chance() * 4); n > 0; n--) {
    const action = chance();
    if (action < 0.35) cross(chance, root, other);
    else if (action < 0.5) double(chance, root);
    else if (action < 0.75) bound(chance, root);
    else if (action < 0.97) root = inherit(chance, root);
    else nest(chance, root);
  }
  return JSON.stringify(root);
}
