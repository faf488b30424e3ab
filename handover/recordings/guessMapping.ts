import type { Kit, Mapping } from "#core";

/** Letters and digits of a name, small: what two spellings of one thing share. */
const plain = (name: string) => name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");

/** Which control a name from elsewhere may mean: one whose id, name or key it is; undefined for none. */
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

/** The unit that a column of times is likely in, by its name. */
function guessUnit(name: string): NonNullable<Mapping["unit"]> {
  const word = plain(name);
  if (/ms|milli/.test(word)) return "ms";
  if (/us$|micro/.test(word)) return "us";
  if (/ns$|nano/.test(word)) return "ns";
  return /^(s|sec|seconds?|time|t|timestamp)$/.test(word) ? "s" : "frames";
}

/** A mapping to begin from, by the head of a table: a row a change where it has a column of controls, else a row a frame. */
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

/** A mapping to begin from, by the paths of a dump's signals. */
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
