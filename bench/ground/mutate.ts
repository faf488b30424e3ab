type Json = unknown;
type Chance = () => number;

/** Odd values in place of numbers, names, lists or ids. */
const ODD: readonly Json[] = [
  null,
  true,
  0,
  -1,
  0.5,
  1e9,
  1e300,
  -1e308,
  4.9e-324,
  2 ** 53,
  "",
  "0f",
  "1f",
  "99999999f",
  "1e9ms",
  "0.1s",
  "NaN",
  "constructor",
  "__proto__",
  "../..",
  "a/b?c#d",
  "\u0000",
  "\ud800",
  "🜁".repeat(40),
  "x".repeat(5000),
  [],
  {},
  [[]],
  [1, 2, 3],
  { id: "x" },
  { gate: "x" },
  { kind: "hold" },
  { toString: false },
  { valueOf: 1, constructor: 2 },
];

const pick = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance() * list.length)]!;

/** Returns every list and object of a document, itself first. */
function listNodes(root: Json, found: (Record<string, Json> | Json[])[] = []): typeof found {
  if (typeof root !== "object" || root === null) return found;
  found.push(root as Json[]);
  for (const inner of Object.values(root)) listNodes(inner, found);
  return found;
}

function changeOnce(chance: Chance, root: Json): void {
  const nodes = listNodes(root);
  const node = pick(chance, nodes);
  const keys = Object.keys(node);
  const key = keys.length > 0 ? pick(chance, keys) : "x";
  const at = node as Record<string, Json>;
  const action = Math.floor(chance() * 7);
  if (action === 0 && Array.isArray(node)) node.splice(Number(key) || 0, 1);
  else if (action === 0) delete at[key];
  else if (action === 1)
    at[pick(chance, ["id", "off", "kind", "extra", "for", "gap", "control"])] = pick(chance, ODD);
  else if (action === 2 && Array.isArray(node))
    node.push(structuredClone(pick(chance, node.length > 0 ? node : ODD)));
  else if (action === 3) {
    const other = pick(chance, nodes);
    const otherKeys = Object.keys(other);
    if (otherKeys.length > 0)
      at[key] = structuredClone((other as Record<string, Json>)[pick(chance, otherKeys)]);
  } else if (action === 4 && typeof at[key] === "number")
    at[key] = at[key] * pick(chance, [-1, 0, 1e-9, 10, 1e6, 1e300]);
  else if (action === 5 && typeof at[key] === "string") {
    const text = at[key];
    at[key] = text.replace(/\d+/, () => String(Math.floor(10 ** (chance() * 7))));
  } else at[key] = structuredClone(pick(chance, ODD));
}

/** Changes a number in the document, or within a text, to a similar one: most such documents remain valid. */
function nudge(chance: Chance, root: Json): void {
  const places = listNodes(root).flatMap(node =>
    Object.entries(node).flatMap(([key, value]) =>
      typeof value === "number" || (typeof value === "string" && /^\d+(f|ms)$/.test(value))
        ? [{ node, key }]
        : [],
    ),
  );
  if (places.length === 0) return;
  const { node, key } = pick(chance, places);
  const at = node as Record<string, Json>;
  const value = at[key];
  const by = pick(chance, [0.1, 0.5, 0.9, 1.1, 2, 10, 100]);
  if (typeof value === "number") at[key] = value * by;
  else at[key] = String(value).replace(/\d+/, digits => String(Math.max(1, Math.round(Number(digits) * by))));
}

/** Cuts, doubles or overwrites a piece of the text. */
function tearText(chance: Chance, text: string): string {
  const at = Math.floor(chance() * text.length);
  const piece = pick(chance, ["1e999", "-", '"', "]", "}", ",", "\\", "[[[[[[[[", "\ufeff", "0".repeat(400)]);
  const kind = Math.floor(chance() * 3);
  if (kind === 0) return text.slice(0, at);
  if (kind === 1) return text.slice(0, at) + piece + text.slice(at + 1);
  return text.slice(0, at) + text.slice(Math.max(0, at - 200));
}

/** Returns a document's text with one to four random defects; deterministic for the generator. */
export function mutate(chance: Chance, text: string): string {
  if (chance() < 0.1) return tearText(chance, text);
  const root: Json = JSON.parse(text);
  const change = chance() < 0.5 ? nudge : changeOnce;
  for (let n = 1 + Math.floor(chance() * 4); n > 0; n--) change(chance, root);
  return JSON.stringify(root);
}
