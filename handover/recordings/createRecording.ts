import { BOUNDS, fault, FILE_LIMIT_BYTES, type Mapping, type Result, type Take, ownValue } from "#core";

type SpeedUnit = NonNullable<Mapping["speed"]>[string];

/** The number of unrecognised items reported individually; the rest is counted. */
const MAX_REPORTED = 20;

/** The number of unknown sources that are listed, so that they can be mapped. */
const MAX_STRANGERS = 200;

/** An upper bound on the bytes of a change in a take's file. */
const CHANGE_BYTES = 24;

/** The maximum number of changes of a take, so that its file can be read again. */
const MAX_CHANGES = Math.floor(FILE_LIMIT_BYTES / CHANGE_BYTES);

/** The result of reading a recording: the take, and unrecognised items with their places. */
export interface ReadRecording {
  readonly take: Take;
  readonly notes: readonly string[];
  /** The number of values that could not be read and are missing from the take; not those of unmapped sources. */
  readonly leftOut: number;
  /** The first sources with a value that the mapping does not know, as far as a mapping may have their names. */
  readonly strangers: readonly string[];
}

/** The id and name of the resulting take. */
export interface NamedTake {
  readonly id: string;
  readonly name: string;
  readonly kit?: string;
}

/** A take under construction, change by change. */
export interface Recording {
  /**
   * Sets what a source plays from a time on, in frames of the take; `value` is from 0 to 1, of a source with values below 0
   * from −1, of one that gives the speed in its own unit. A time before the previous one of a control is reported and skipped.
   */
  readonly set: (source: string, x: number, value: number, placeOf: () => string) => void;
  /** Reports an unrecognised item and its place. */
  readonly note: (words: string) => void;
  /** Returns whether the take has reached its maximum size, so that the rest need not be read. */
  readonly isFull: () => boolean;
  /** Returns the latest time at which a value was set, in frames; 0 before the first. */
  readonly last: () => number;
  /**
   * Returns the take: up to `end`, or one second beyond its last change. Returns a fault if it is too large
   * for a file.
   */
  readonly finish: (named: NamedTake, end?: number) => Result<ReadRecording>;
}

/** A lane that a source plays, the place of its value among those of the lane, and that value for one of the source. */
interface Target {
  readonly lane: Growing;
  readonly place: number;
  readonly levelOf: (value: number) => number;
}

/** The acts of a game that a source shows: the frames on which it performed a move. */
interface Acts {
  readonly id: string;
  readonly xs: number[];
  lastX: number;
  isOn: boolean;
}

const aboveZero = (value: number) => Math.max(0, value);
const belowZero = (value: number) => Math.max(0, -value);
const isOpen = (value: number) => (value === 0 ? 0 : 1);
const clampPercent = (percent: number) => Math.min(BOUNDS.speedPercent, Math.max(0, Math.round(percent)));

/** The speed in percent by the value of a source, for each way to give it. */
const PERCENT_OF: Readonly<Record<SpeedUnit, (value: number) => number>> = {
  times: value => clampPercent(value * 100),
  percent: clampPercent,
  stops: value => (value === 0 ? 100 : 0),
};

/** A lane under construction: alternating positions and values. */
interface Growing {
  /** The latest value of each source, and how they become that of the lane. */
  readonly levels: number[];
  readonly join: (levels: readonly number[]) => number;
  pairs: Float64Array;
  length: number;
  lastX: number;
  value: number;
}

const highestOf = (levels: readonly number[]) => Math.max(...levels);
const productOf = (percents: readonly number[]) =>
  clampPercent(percents.reduce((product, percent) => product * (percent / 100), 100));

const createLane = (join = highestOf, value = 0): Growing => ({
  levels: [],
  join,
  pairs: new Float64Array(64),
  length: 0,
  lastX: -1,
  value,
});

function push(lane: Growing, x: number, value: number): void {
  if (lane.length * 2 === lane.pairs.length) {
    const longer = new Float64Array(lane.pairs.length * 2);
    longer.set(lane.pairs);
    lane.pairs = longer;
  }
  lane.pairs[lane.length * 2] = x;
  lane.pairs[lane.length * 2 + 1] = value;
  lane.length++;
  lane.lastX = x;
}

const laneOf = ({ pairs, length }: Growing): [number, number][] =>
  Array.from({ length }, (_, k) => [pairs[2 * k]!, pairs[2 * k + 1]!]);

/** Returns the lanes with a change as those of a take. */
function lanesOf(lanes: ReadonlyMap<string, Growing>): Record<string, [number, number][]> {
  const used = [...lanes].filter(([, { length }]) => length > 0);
  return Object.fromEntries(used.map(([id, lane]) => [id, laneOf(lane)]));
}

/** Returns the acts of several sources by move, in order; those of one frame once. */
function didOf(acts: readonly Acts[]): NonNullable<Take["did"]> {
  const byMove = new Map<string, Set<number>>();
  for (const { id, xs } of acts) {
    const own = byMove.get(id) ?? new Set();
    byMove.set(id, own);
    for (const x of xs) own.add(x);
  }
  return Object.fromEntries([...byMove].map(([id, xs]) => [id, [...xs].sort((a, b) => a - b)]));
}

/**
 * Creates a recording that is read through a mapping. Sources the mapping does not know are reported once
 * each, with their number of changes.
 */
export function createRecording(mapping: Mapping): Recording {
  const { sort, rate, controls, below = {}, gates = {}, performs = {}, speed = {} } = mapping;
  const acts = new Map(
    Object.entries(performs).map(([source, id]): [string, Acts] => [
      source,
      { id, xs: [], lastX: 0, isOn: false },
    ]),
  );
  const lanes = new Map<string, Growing>();
  const speedLane = createLane(productOf, 100);
  const gateLanes = new Map<string, Growing>();
  const targets = new Map<string, Target[]>();
  const addTarget = (source: string, lane: Growing, levelOf: Target["levelOf"]) => {
    const place = lane.levels.push(lane.value) - 1;
    targets.set(source, [...(targets.get(source) ?? []), { lane, place, levelOf }]);
  };
  const addTargets = (
    mapped: Readonly<Record<string, string>>,
    own: Map<string, Growing>,
    levelOf: Target["levelOf"],
  ) => {
    for (const [source, id] of Object.entries(mapped)) {
      const lane = own.get(id) ?? createLane();
      own.set(id, lane);
      addTarget(source, lane, levelOf);
    }
  };
  addTargets(controls, lanes, aboveZero);
  addTargets(below, lanes, belowZero);
  addTargets(gates, gateLanes, isOpen);
  for (const [source, unit] of Object.entries(speed)) addTarget(source, speedLane, PERCENT_OF[unit]);
  const strangers = new Map<string, { count: number; first: string }>();
  const notes: string[] = [];
  const most = BOUNDS.frames - rate;
  let unreported = 0;
  let last = 0;
  let changes = 0;
  const note = (words: string) => {
    if (notes.length < MAX_REPORTED) notes.push(words);
    else unreported++;
  };
  function meetStranger(source: string, placeOf: () => string): void {
    const known = strangers.get(source);
    if (known) known.count++;
    else strangers.set(source, { count: 1, first: placeOf() });
  }
  /** Sets the value of one source of a lane from a time on. */
  function setLane({ lane, place }: Target, x: number, level: number): void {
    const { levels, join } = lane;
    levels[place] = level;
    const value = levels.length === 1 ? level : join(levels);
    if (lane.value === value) return;
    lane.value = value;
    if (lane.lastX === x) lane.pairs[lane.length * 2 - 1] = value;
    else {
      push(lane, x, value);
      changes++;
    }
  }
  /** Adds an act if the value of its source rises from 0; each row of a change that is not 0 is one. */
  function setActs(own: Acts, x: number, value: number): void {
    const isOn = value !== 0;
    if (isOn && (!own.isOn || sort === "changes") && own.xs.at(-1) !== x) {
      own.xs.push(x);
      changes++;
    }
    own.isOn = isOn;
    own.lastX = x;
  }
  return {
    note,
    isFull: () => changes > MAX_CHANGES,
    last: () => last,
    set(source, x, value, placeOf) {
      const played = targets.get(source) ?? [];
      const own = acts.get(source);
      if (played.length === 0 && !own) return meetStranger(source, placeOf);
      if (!(x >= 0 && x <= most)) {
        const isTime = Number.isFinite(x) && x > 0;
        return note(`${placeOf()}: ${x} ${isTime ? "frames are more than a take may have" : "is no time"}`);
      }
      for (const { lastX } of [...played.map(({ lane }) => lane), ...(own ? [own] : [])])
        if (x < lastX) return note(`${placeOf()}: ${source} goes back in time, to ${x} frames from ${lastX}`);
      if (x > last) last = x;
      if (own) setActs(own, x, value);
      for (const target of played) setLane(target, x, target.levelOf(value));
    },
    finish({ id, name, kit }, end) {
      if (changes > MAX_CHANGES) {
        const facts = { changes, limit: MAX_CHANGES };
        return { ok: false, issues: [fault("too-many-changes", [], facts)] };
      }
      const strangerNotes = [...strangers].map(
        ([source, { count, first }]) =>
          `${first}: “${source}” plays no control here; ${count} ${count === 1 ? "value was" : "values were"} left out`,
      );
      const isGated = gateLanes.size > 0;
      const take: Take = {
        format: "moss-tap/take",
        version: 1,
        id,
        name,
        ...(kit === undefined ? {} : { kit }),
        rate,
        frames: Math.min(BOUNDS.frames, Math.ceil(end ?? last + rate)),
        lanes: lanesOf(lanes),
        ...(isGated ? { gates: lanesOf(gateLanes) as NonNullable<Take["gates"]>, stage: "none" } : {}),
        ...(speedLane.length > 0 ? { speed: laneOf(speedLane) } : {}),
        ...(acts.size > 0 ? { did: didOf([...acts.values()]), didOf: "listed" } : {}),
      };
      const more = unreported > 0 ? [`and ${unreported} more places like these`] : [];
      return {
        ok: true,
        value: {
          take,
          notes: [...notes, ...more, ...strangerNotes],
          leftOut: notes.length + unreported,
          strangers: [...strangers.keys()]
            .filter(source => source.length <= BOUNDS.nameLetters)
            .slice(0, MAX_STRANGERS),
        },
        warnings: [],
      };
    },
  };
}

const WORDS: Readonly<Record<string, number>> = {
  down: 1,
  pressed: 1,
  press: 1,
  keydown: 1,
  held: 1,
  on: 1,
  true: 1,
  yes: 1,
  up: 0,
  released: 0,
  release: 0,
  keyup: 0,
  off: 0,
  false: 0,
  no: 0,
  "": 0,
};

/** Parses a cell as a number, with a decimal point or comma; NaN for anything else. */
export function readNumber(cell: string): number {
  if (cell === "") return Number.NaN;
  return Number(cell.includes(",") ? cell.replace(",", ".") : cell);
}

/**
 * Parses a cell as a value from 0 to 1: a number in that range, or a word for down or up; undefined for
 * anything else.
 */
export function readCell(cell: string): number | undefined {
  if (cell === "1") return 1;
  if (cell === "0") return 0;
  const written = cell.trim().toLowerCase();
  const word = ownValue(WORDS, written);
  if (word !== undefined) return word;
  const value = readNumber(written);
  return value >= 0 && value <= 1 ? value : undefined;
}

/** Parses a cell of a source with values below 0: as `readCell` does, or a number from −1 to 0. */
export function readSignedCell(cell: string): number | undefined {
  const value = readNumber(cell.trim());
  return value >= -1 && value < 0 ? value : readCell(cell);
}

/** The length of each unit of time in seconds; frames depend on the rate. */
export const SECONDS = { s: 1, ms: 1e-3, us: 1e-6, ns: 1e-9 } as const;

/** Parses a cell of a source that opens a gate: as `readCell` does, or any number; 1 for all but 0. */
export function readGateCell(cell: string): number | undefined {
  const value = readCell(cell) ?? readNumber(cell.trim());
  return Number.isNaN(value) ? undefined : value === 0 ? 0 : 1;
}

/** Returns how the cells of a source that gives the speed are read: as a number from 0 to four times full speed; undefined for others. */
export function readSpeedCell(unit: SpeedUnit): (cell: string) => number | undefined {
  if (unit === "stops") return readGateCell;
  const most = unit === "times" ? BOUNDS.speedPercent / 100 : BOUNDS.speedPercent;
  return cell => {
    const value = readNumber(cell.trim());
    return value >= 0 && value <= most ? value : undefined;
  };
}

const MILLIONTH = 1e-6;

/** Returns the finest unit of a written number: 0.001 of "0,017"; 0 if it has an exponent. */
export function finestOf(written: string): number {
  if (written.includes("e") || written.includes("E")) return 0;
  const point = Math.max(written.indexOf("."), written.indexOf(","));
  return point < 0 ? 1 : 10 ** (point + 1 - written.length);
}

/**
 * Converts a time to frames of a rate. A time that is a whole number of millionths of a frame converts
 * exactly. `finest`: the finest unit in which it is written. If the time of a whole frame may have been rounded or cut to it,
 * that frame is returned: 16 and 17 ms are frame 1 at 60 Hz. `late`: how much later than that frame it may be written, half a unit
 * by rounding. Times in frames, and those coarser than half a frame, stay as they are.
 */
export function toFrames(
  time: number,
  unit: NonNullable<Mapping["unit"]>,
  rateHz: number,
  finest = 0,
  late = finest / 2,
): number {
  if (unit === "frames") return time;
  const perUnit = SECONDS[unit] * rateHz;
  const x = Math.round(time * perUnit * 1e6) / 1e6;
  const room = finest * perUnit;
  if (room >= 0.5) return x;
  const next = Math.ceil(x);
  if (next - x < room - MILLIONTH) return next;
  return x - (next - 1) <= late * perUnit + MILLIONTH ? next - 1 : x;
}
