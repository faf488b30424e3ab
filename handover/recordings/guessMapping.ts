import { ownValue, type Kit, type Mapping } from "#core";
import { readNumber, readSignedCell, SECONDS, toFrames } from "./createRecording";
import { findWords } from "./cellWords";
import { guessControls, guessGates, plain } from "./guessNames";
import { readClock } from "./readClock";

const TIMES = ["time", "t", "frame", "f", "ms", "timestamp", "seconds", "tick", "clock", "datetime"];
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

type Rows = readonly (readonly string[])[];

/** Returns the cells of a column. */
function cellsOf(name: string, head: readonly string[], rows: Rows): string[] {
  const at = head.indexOf(name);
  return rows.map(row => (row[at] ?? "").trim());
}

/** Returns the numbers of a column, of times of a clock their seconds; NaN for cells that are neither. */
const numbersOf = (name: string, head: readonly string[], rows: Rows): number[] =>
  cellsOf(name, head, rows).map(cell => {
    const number = readNumber(cell);
    return Number.isNaN(number) ? (readClock(cell)?.seconds ?? Number.NaN) : number;
  });

/** Returns the unit of a column of times: seconds for a clock's, else see `guessUnit`. */
function unitOfColumn(
  name: string,
  head: readonly string[],
  rows: Rows,
  isRowPerFrame: boolean,
  rateHz: number,
): Unit {
  if (cellsOf(name, head, rows).some(cell => readClock(cell) !== undefined)) return "s";
  return guessUnit(name, numbersOf(name, head, rows).filter(Number.isFinite), isRowPerFrame, rateHz);
}

/** The number of rows over which a rate is measured, so that times in whole milliseconds give it to a thousandth at 60 Hz. */
const RATE_ROWS = 60;
/** The deviation from a whole rate that is taken for rounding. */
const RATE_SHARE = 0.01;

/**
 * Returns the rate of a game that recorded both its frames and their times, in whole frames a second: the median over stretches of
 * rows, because a game may stall. Undefined without both columns, or if they give no steady rate.
 */
function guessRate(head: readonly string[], rows: Rows, kitHz: number): number | undefined {
  const timed = head.filter(name => findNamed([name], TIMES) !== undefined);
  const unitOf = (name: string) => unitOfColumn(name, head, rows, true, kitHz);
  const counted = timed.find(name => unitOf(name) === "frames");
  const real = timed.find(name => unitOf(name) !== "frames");
  if (counted === undefined || real === undefined) return undefined;
  const [frames, times] = [numbersOf(counted, head, rows), numbersOf(real, head, rows)];
  const seconds = SECONDS[unitOf(real) as keyof typeof SECONDS];
  const apart = Math.min(RATE_ROWS, rows.length - 1);
  const rates = rows
    .slice(apart)
    .map((_row, k) => (frames[k + apart]! - frames[k]!) / ((times[k + apart]! - times[k]!) * seconds))
    .filter(rate => rate > 0 && rate < Infinity)
    .sort((a, b) => a - b);
  const rate = rates[rates.length >> 1];
  if (rate === undefined || Math.abs(rate / Math.round(rate) - 1) > RATE_SHARE) return undefined;
  return Math.round(rate) >= 1 && Math.round(rate) <= 1000 ? Math.round(rate) : undefined;
}

/** Guesses the unit and the start of a column of times. */
function guessTimes(
  time: string,
  head: readonly string[],
  rows: Rows,
  isRowPerFrame: boolean,
  rateHz: number,
): Pick<Mapping, "time" | "unit" | "start"> {
  const unit = unitOfColumn(time, head, rows, isRowPerFrame, rateHz);
  const first = numbersOf(time, head, rows).find(Number.isFinite) ?? 0;
  const isLate = toFrames(first, unit, rateHz) > LATE_START_SECONDS * rateHz;
  return { time, unit, ...(isLate ? { start: "first-row" as const } : {}) };
}

/** Returns the first column of a header that is named by one of some words; undefined for none. */
function findNamed(head: readonly string[], words: readonly string[]): string | undefined {
  const isNamed = (name: string) =>
    words.some(
      word =>
        [plain(name), plain(withoutUnit(name))].includes(word) ||
        (plain(name).startsWith(word) && word.length > 2),
    );
  return head.find(isNamed);
}

/** The columns of a table that has a row per change. */
export interface ChangeColumns {
  readonly control: string;
  readonly value: string;
}

/**
 * Guesses the columns of a table with a row per change: those named so; else one with names of the kit's controls or gates, and one
 * with their values. Undefined if there are none, or if controls have columns of their own. `rows`: the first ones; without any, the names alone decide.
 */
export function guessChangeColumns(
  kit: Kit,
  head: readonly string[],
  rows: Rows,
  time: string | undefined,
): ChangeColumns | undefined {
  const filledOf = (name: string) => cellsOf(name, head, rows).filter(cell => cell !== "");
  const others = head.filter(name => name !== time);
  const hasNames = (name: string) => {
    const cells = [...new Set(filledOf(name))].filter(cell => readSignedCell(cell) === undefined);
    return cells.length > 0 && guessControls(kit, cells).size + guessGates(kit, cells).size > 0;
  };
  const hasValues = (name: string) => {
    const cells = filledOf(name);
    return cells.length > 0 && cells.every(cell => readSignedCell(cell) !== undefined);
  };
  const named = findNamed(others, CONTROLS);
  const apart = others.filter(name => name !== named && name !== findNamed(others, VALUES));
  if (guessControls(kit, apart).size > 0) return undefined;
  // A column named like that may hold numbers: a state, or a control called "Action" with a column of its own.
  const isNamed = named !== undefined && !hasValues(named);
  const control = isNamed ? named : others.find(hasNames);
  if (control === undefined) return undefined;
  const rest = others.filter(name => name !== control);
  const value = findNamed(rest, VALUES) ?? (isNamed ? undefined : rest.find(hasValues));
  return value === undefined ? undefined : { control, value };
}

/** Returns the columns of words in a table of frames, with these, as a part of its mapping; nothing if it has none. */
export function guessWords(
  head: readonly string[],
  rows: Rows,
  time: string | undefined,
): Pick<Mapping, "words"> {
  const found = Object.entries(findWords(head, rows)).filter(([name]) => name !== time);
  return found.length === 0 ? {} : { words: Object.fromEntries(found) };
}

/**
 * Guesses a mapping from a table's header: a row per change if it has a column of controls and one of values, otherwise a row per
 * frame. `rows`: the first ones, whose times show their unit where its name does not. The rate is the kit's, or that of a game which
 * recorded its frames and their times.
 */
export function guessTableMapping(kit: Kit, head: readonly string[], rows: Rows = []): Mapping {
  const time = findNamed(head, TIMES);
  const columns = time === undefined ? undefined : guessChangeColumns(kit, head, rows, time);
  const rate = guessRate(head, rows, kit.rate) ?? kit.rate;
  const common = { format: "moss-tap/mapping", version: 1, rate } as const;
  const timed = time === undefined ? {} : guessTimes(time, head, rows, columns === undefined, rate);
  if (columns) {
    const controls = Object.fromEntries(kit.controls.map(({ id }) => [id, id]));
    return { ...common, sort: "changes", ...timed, ...columns, controls };
  }
  const guessed = guessWords(head, rows, time);
  const played = guessControls(
    kit,
    head.filter(name => name !== time && ownValue(guessed.words, name) === undefined),
  );
  return { ...common, sort: "frames", ...timed, ...guessed, controls: Object.fromEntries(played) };
}

/** Guesses a mapping from the paths of a dump's signals. */
export function guessDumpMapping(kit: Kit, paths: readonly string[]): Mapping {
  return {
    format: "moss-tap/mapping",
    version: 1,
    sort: "dump",
    rate: kit.rate,
    controls: Object.fromEntries(guessControls(kit, paths)),
  };
}
