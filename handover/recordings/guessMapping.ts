import type { Kit, Mapping } from "#core";

/** Normalises a name to lower-case letters and digits, so that spellings can be compared. */
const plain = (name: string) => name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");

/** Returns the control whose id, name or key matches a name from another program; undefined for none. */
export function guessControl(kit: Kit, source: string): string | undefined {
  const last = plain(source.split(/[.:/]/).at(-1) ?? source);
  const names = (control: Kit["controls"][number]) => [
    control.id,
    control.name,
    ...control.bindings.flat().map(code =>
      code
        .split(":")
        .at(-1)!
        .replace(/^(?:Key|Digit|Arrow)/, ""),
    ),
  ];
  return kit.controls.find(control =>
    names(control).some(name => plain(name) === last || plain(name) === plain(source)),
  )?.id;
}

const TIMES = ["time", "t", "frame", "f", "ms", "timestamp", "seconds", "tick"];
const CONTROLS = ["control", "button", "key", "input", "name", "action", "signal"];
const VALUES = ["value", "v", "state", "down", "pressed", "val"];

/** Guesses the unit of a time column from its name. */
function guessUnit(name: string): NonNullable<Mapping["unit"]> {
  const word = plain(name);
  if (/ms|milli/.test(word)) return "ms";
  if (/us$|micro/.test(word)) return "us";
  if (/ns$|nano/.test(word)) return "ns";
  return /^(s|sec|seconds?|time|t|timestamp)$/.test(word) ? "s" : "frames";
}

/**
 * Guesses a mapping from a table's header: a row per change if it has a column of controls, otherwise a row
 * per frame.
 */
export function guessTableMapping(kit: Kit, head: readonly string[]): Mapping {
  const find = (words: readonly string[]) =>
    head.find(name =>
      words.some(word => plain(name) === word || (plain(name).startsWith(word) && word.length > 2)),
    );
  const time = find(TIMES);
  const control = find(CONTROLS);
  const value = find(VALUES);
  const common = { format: "moss-tap/mapping", version: 1, rate: kit.rate } as const;
  const timed = time === undefined ? {} : { time, unit: guessUnit(time) };
  if (control !== undefined && value !== undefined && time !== undefined) {
    const controls = Object.fromEntries(kit.controls.map(({ id }) => [id, id]));
    return { ...common, sort: "changes", ...timed, control, value, controls };
  }
  const played = head.flatMap(name => {
    const meant = name === time ? undefined : guessControl(kit, name);
    return meant === undefined ? [] : [[name, meant] as const];
  });
  return { ...common, sort: "frames", ...timed, controls: Object.fromEntries(played) };
}

/** Guesses a mapping from the paths of a dump's signals. */
export function guessDumpMapping(kit: Kit, paths: readonly string[]): Mapping {
  const played = paths.flatMap(path => {
    const meant = guessControl(kit, path);
    return meant === undefined ? [] : [[path, meant] as const];
  });
  return {
    format: "moss-tap/mapping",
    version: 1,
    sort: "dump",
    rate: kit.rate,
    controls: Object.fromEntries(played),
  };
}
