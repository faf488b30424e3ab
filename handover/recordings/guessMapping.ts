import type { Kit, Mapping } from "#core";
import { readNumber, SECONDS, toFrames } from "./createRecording";

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

/** Returns the gate whose id or name matches a name from another program; undefined for none. */
export function guessGate({ gates = [] }: Kit, source: string): string | undefined {
  return gates.find(gate => [gate.id, gate.name].some(name => plain(name) === plain(source)))?.id;
}

const TIMES = ["time", "t", "frame", "f", "ms", "timestamp", "seconds", "tick"];
const CONTROLS = ["control", "button", "key", "input", "name", "action", "signal"];
const VALUES = ["value", "v", "state", "down", "pressed", "val"];

/** Returns the name of a column without a unit at its end: "t" for "t [ms]". */
const withoutUnit = (name: string) => name.replace(/[^a-z]+(s|ms|us|µs|ns)[^a-z]*$/i, "");

type Unit = NonNullable<Mapping["unit"]>;

/** Units by the end of a name that is written apart from the rest, or in a word of its own: "Time (s)", "t_ms", "timeUs". */
const NAMED_UNITS: readonly (readonly [name: RegExp, unit: Unit])[] = [
  [/(^|[^a-z])(ms|msec|milli\w*)[^a-z]*$|ms$|milli/i, "ms"],
  [/(^|[^a-z])(us|µs|micro\w*)[^a-z]*$|[a-z]Us$|micro/i, "us"],
  [/(^|[^a-z])(ns|nano\w*)[^a-z]*$|[a-z]Ns$|nano/i, "ns"],
  [/(^|[^a-z])(s|secs?|seconds?)[^a-z]*$/i, "s"],
  [/frame|tick|(^|[^a-z])f[^a-z]*$/i, "frames"],
];

/** Returns the median of the steps between times that follow each other; undefined without any. */
function stepOf(times: readonly number[]): number | undefined {
  const steps = times.slice(1).flatMap((time, k) => (time > times[k]! ? [time - times[k]!] : []));
  return steps.sort((a, b) => a - b)[steps.length >> 1];
}

/**
 * Guesses the unit of a column of times: by its name; else, with a row per frame, the one in which a step is nearest to a frame
 * of the kit; else seconds for times with fractions, and for those only named as times.
 */
function guessUnit(name: string, times: readonly number[], isRowPerFrame: boolean, rateHz: number): Unit {
  const named = NAMED_UNITS.find(([pattern]) => pattern.test(name))?.[1];
  if (named) return named;
  const step = isRowPerFrame ? stepOf(times) : undefined;
  if (step !== undefined) {
    const perFrame: readonly (readonly [Unit, number])[] = [
      ["frames", 1],
      ...Object.entries(SECONDS).map(([unit, seconds]) => [unit as Unit, 1 / seconds / rateHz] as const),
    ];
    const distanceOf = (expected: number) => Math.abs(Math.log(step / expected));
    return perFrame.reduce((best, next) => (distanceOf(next[1]) < distanceOf(best[1]) ? next : best))[0];
  }
  if (times.some(time => !Number.isInteger(time))) return "s";
  return /^(time|t|timestamp)$/.test(plain(name)) ? "s" : "frames";
}

/** The time from which on a table's first row is taken for the beginning of its take; s. */
const LATE_START_SECONDS = 10;

/**
 * Guesses a mapping from a table's header: a row per change if it has a column of controls, otherwise a row
 * per frame. `rows`: the first ones, whose times show their unit where its name does not.
 */
export function guessTableMapping(
  kit: Kit,
  head: readonly string[],
  rows: readonly (readonly string[])[] = [],
): Mapping {
  const find = (words: readonly string[]) =>
    head.find(name =>
      words.some(
        word =>
          [plain(name), plain(withoutUnit(name))].includes(word) ||
          (plain(name).startsWith(word) && word.length > 2),
      ),
    );
  const time = find(TIMES);
  const control = find(CONTROLS);
  const value = find(VALUES);
  const common = { format: "moss-tap/mapping", version: 1, rate: kit.rate } as const;
  const isChanges = control !== undefined && value !== undefined && time !== undefined;
  const times = rows
    .map(row => readNumber((row[head.indexOf(time ?? "")] ?? "").trim()))
    .filter(Number.isFinite);
  const unit = guessUnit(time ?? "", times, !isChanges, kit.rate);
  const isLate = toFrames(times[0] ?? 0, unit, kit.rate) > LATE_START_SECONDS * kit.rate;
  const timed = time === undefined ? {} : { time, unit, ...(isLate ? { start: "first-row" as const } : {}) };
  if (isChanges) {
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
