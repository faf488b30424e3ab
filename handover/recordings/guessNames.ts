import { formatCode, type Kit } from "#core";

/** Words that names from other programs have beside the control or gate itself: "btn_jump", "JumpPressed", "is_grounded". */
const BESIDE = new Set(
  "is was btn button key pad input pressed held hold holding value val state axis action performed did started".split(
    " ",
  ),
);
/** Words that mean the same, unless they are all that is left: a key "down" may be a direction. */
const BESIDE_MORE = new Set([...BESIDE, "down", "on", "in"]);

/** Normalises a name to lower-case letters and digits, so that spellings can be compared. */
export const plain = (name: string) => name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");

/** Returns the words of a name: those of "JumpPressed", "jump_pressed" and "jump pressed" are the same two. */
const wordsOf = (name: string) =>
  name
    .replace(/(\p{Ll}|\p{N})(?=\p{Lu})/gu, "$1 ")
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(word => word !== "");

/** Returns a name without the words beside its subject; empty if it has no others. */
const without = (beside: ReadonlySet<string>, name: string) =>
  wordsOf(name)
    .filter(word => !beside.has(word))
    .join("");

/** Ways to compare names, from the strictest on. */
const WAYS: readonly ((name: string) => string)[] = [
  plain,
  name => without(BESIDE, name),
  name => without(BESIDE_MORE, name),
  // "is_grounded" and "On the ground".
  name => without(BESIDE_MORE, name).replace(/^the(?=.{4})|(?<=.{4})ed$/g, ""),
];

/** An id, and the names by which other programs may know it. */
interface Named {
  readonly id: string;
  readonly names: readonly string[];
}

/** Returns the last part of a path: "leap" of "top.pad.leap". */
const lastOf = (source: string) => source.split(/[.:/]/).at(-1) ?? source;

/**
 * Returns the ids that sources are named like. The names are compared as they are first, then without words like "pressed"; an id
 * found by a stricter comparison is not given to a looser one, so that "jump_pressed" beside "jump" stays free.
 */
function matchNames(named: readonly Named[], sources: readonly string[]): Map<string, string> {
  const found = new Map<string, string>();
  for (const [k, simplify] of WAYS.entries()) {
    const taken = new Set(found.values());
    const idsOf = new Map<string, string[]>();
    for (const { id, names } of named)
      for (const name of new Set(names.map(simplify))) idsOf.set(name, [...(idsOf.get(name) ?? []), id]);
    idsOf.delete("");
    for (const source of sources) {
      if (found.has(source)) continue;
      const same = [lastOf(source), source].flatMap(name => idsOf.get(simplify(name)) ?? []);
      const id = same.find(own => !taken.has(own));
      if (id === undefined) continue;
      found.set(source, id);
      // Only names that are equal as written may share an id, as a key and a button do.
      if (k > 0) taken.add(id);
    }
  }
  return found;
}

/** Returns the controls whose ids, names, keys or buttons sources from another program match, by source. */
export function guessControls(kit: Kit, sources: readonly string[]): Map<string, string> {
  const named = kit.controls.map(({ id, name, bindings }): Named => {
    const codes = bindings.flat();
    const keys = codes.map(code =>
      code
        .split(":")
        .at(-1)!
        .replace(/^(?:Key|Digit|Arrow)/, ""),
    );
    return { id, names: [id, name, ...keys, ...codes.map(code => formatCode(code))] };
  });
  return matchNames(named, sources);
}

/** Returns the gates whose ids or names sources from another program match, by source. */
export function guessGates({ gates = [] }: Kit, sources: readonly string[]): Map<string, string> {
  return matchNames(
    gates.map(({ id, name }) => ({ id, names: [id, name] })),
    sources,
  );
}

/** Names of a game's speed, and of a column that is not 0 while the game is stopped, for instance by a blow. */
const SPEED_NAMES = /^(time|game|clock)(scale|speed|dilation)$|timescale|slowmo/;
const STOP_NAMES = /hitstop|freeze|frozen|pause/;

/**
 * Returns how sources that are named like the speed of a game give it, by source. `largestOf`: the largest value of a source so far:
 * up to 4 for full speed as 1, more for percent.
 */
export function guessSpeeds(
  sources: readonly string[],
  largestOf: (source: string) => number,
): Map<string, "times" | "percent" | "stops"> {
  const found = new Map<string, "times" | "percent" | "stops">();
  for (const source of sources) {
    const name = plain(lastOf(source));
    if (STOP_NAMES.test(name)) found.set(source, "stops");
    else if (SPEED_NAMES.test(name)) found.set(source, largestOf(source) > 4 ? "percent" : "times");
  }
  return found;
}

/** Returns the moves whose ids or names sources from another program match, by source. */
export function guessMoves({ moves = [] }: Kit, sources: readonly string[]): Map<string, string> {
  return matchNames(
    moves.map(({ id, name }) => ({ id, names: [id, name] })),
    sources,
  );
}
