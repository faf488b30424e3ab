import type { PadSource } from "#core";
import type { PadReading } from "./gamepads";

/** The values that an axis of a pad had while it was watched. */
export interface WatchedAxis {
  /** Its value while nothing is touched. */
  readonly rest: number;
  readonly least: number;
  readonly most: number;
  /** The number of different values, to a hundredth. */
  readonly steps: number;
}

/** The kind of part that is asked for: a button, a trigger with a way, one direction of a cross, or one of a stick. */
export type Asked = "button" | "trigger" | "direction" | "stick";

/** The answer of a pad to a request: something that was pressed and released. */
export type Answer =
  | { readonly kind: "source"; readonly source: PadSource }
  | { readonly kind: "stick"; readonly axis: number; readonly rest: number; readonly full: number };

/** Watches one pad: what each axis does at rest and when it is moved, and what is pressed and released. */
export interface PadWatch {
  /** Reports a reading. Returns the answer once something was pressed and everything is at rest again. */
  readonly feed: (pad: PadReading) => Answer | undefined;
  /**
   * Takes the present values as those at rest, and returns the answer: browsers give 0 for a trigger until it was moved once,
   * though it rests at the end of its way.
   */
  readonly settle: () => Answer | undefined;
  /** Sets what the next press is asked for. */
  readonly ask: (asked: Asked) => void;
  /** Returns what each axis was seen to do, by its number. */
  readonly axes: () => readonly WatchedAxis[];
  /** Returns whether anything is pressed or moved now. */
  readonly isTouched: () => boolean;
}

/** The readings by whose middle value a pad's rest is known. */
const REST_READINGS = 9;
/** The readings for which everything must rest before a press is over. */
const RESTED = 8;
/** How far an axis moves when it is meant, of its way from the rest; and how near it is to it when it rests. */
const MOVED = 0.5;
const AT_REST = 0.25;
const PRESSED = 0.5;
/** An axis that rests further out than this is a hat switch: all of its directions lie between −1 and 1. */
const OUTSIDE = 1.05;

const middle = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
const hundredths = (value: number) => Math.round(value * 100) / 100;

/** The values of an axis since the last answer: its ends, and how often it had each. */
interface Way {
  least: number;
  most: number;
  readonly counts: Map<number, number>;
}

function noteWay(way: Way, value: number): void {
  way.least = Math.min(way.least, value);
  way.most = Math.max(way.most, value);
  way.counts.set(hundredths(value), (way.counts.get(hundredths(value)) ?? 0) + 1);
}

/** Returns the value of an axis that was furthest from its rest. */
const furthestOf = ({ least, most }: Way, rest: number) => (most - rest >= rest - least ? most : least);

/** Returns the value away from its rest that an axis had most often: a hat switch passes others on its way. */
function heldValue({ counts }: Way, rest: number): number {
  const away = [...counts].filter(([value]) => Math.abs(value - rest) > AT_REST);
  return away.reduce((best, each) => (each[1] > best[1] ? each : best), [rest, 0])[0];
}

/** Creates a watch of one pad, which must not be touched during the first readings. */
export function createPadWatch(): PadWatch {
  const first: PadReading[] = [];
  let rests: readonly number[] | undefined;
  let asked: Asked = "button";
  const seen: { least: number; most: number; readonly values: Set<number> }[] = [];
  /** The values of each axis since the last answer, and the buttons that were pressed. */
  let ways: Way[] = [];
  let pressed = new Set<number>();
  let isTouched = false;
  let last: PadReading | undefined;
  /** The readings since anything was pressed or moved. */
  let restedFor = 0;

  function learnRest(pad: PadReading): void {
    first.push(pad);
    if (first.length < REST_READINGS) return;
    rests = pad.axes.map((_, a) => middle(first.map(({ axes }) => axes[a] ?? 0)));
    forget();
  }

  function note(pad: PadReading): void {
    pad.axes.forEach((value, a) => {
      const own = (seen[a] ??= { least: value, most: value, values: new Set() });
      own.least = Math.min(own.least, value);
      own.most = Math.max(own.most, value);
      own.values.add(hundredths(value));
      noteWay((ways[a] ??= { least: value, most: value, counts: new Map() }), value);
    });
    pad.buttons.forEach(({ value }, b) => value >= PRESSED && pressed.add(b));
  }

  const isAway = (pad: PadReading, rest: readonly number[]): boolean =>
    pad.buttons.some(({ value }) => value >= PRESSED) ||
    pad.axes.some((value, a) => Math.abs(value - (rest[a] ?? 0)) > AT_REST);

  /** Returns the axis that moved furthest, if it was meant. */
  function movedAxis(rest: readonly number[]): number | undefined {
    let best: number | undefined;
    const far = (a: number) => (ways[a] ? Math.abs(furthestOf(ways[a]!, rest[a]!) - rest[a]!) : 0);
    for (let a = 0; a < rest.length; a++)
      if (far(a) > MOVED && (best === undefined || far(a) > far(best))) best = a;
    return best;
  }

  function answerNow(rest: readonly number[]): Answer | undefined {
    const axis = movedAxis(rest);
    const [button] = pressed;
    const full = axis === undefined ? 0 : hundredths(furthestOf(ways[axis]!, rest[axis]!));
    const from = axis === undefined ? 0 : hundredths(rest[axis]!);
    if (asked === "stick") return axis === undefined ? undefined : { kind: "stick", axis, rest: from, full };
    const ofButton: Answer | undefined =
      button === undefined ? undefined : { kind: "source", source: { kind: "button", button } };
    if (axis === undefined) return ofButton;
    // A trigger that is a button too has its whole way only on the axis; any other button is one.
    if (ofButton && asked !== "trigger") return ofButton;
    const isHat = Math.abs(from) > OUTSIDE;
    return {
      kind: "source",
      source: isHat
        ? { kind: "hat", axis, at: [heldValue(ways[axis]!, from)] }
        : { kind: "axis", axis, from, to: full },
    };
  }

  function forget(): void {
    ways = [];
    pressed = new Set();
  }

  return {
    feed(pad) {
      last = pad;
      note(pad);
      if (!rests) return void learnRest(pad);
      isTouched = isAway(pad, rests);
      restedFor = isTouched ? 0 : restedFor + 1;
      // On its way back, an axis whose true rest is not known yet passes the supposed one.
      if (restedFor < RESTED) return undefined;
      const answer = answerNow(rests);
      forget();
      return answer;
    },
    settle() {
      if (last) rests = [...last.axes];
      isTouched = false;
      const answer = rests && answerNow(rests);
      forget();
      return answer;
    },
    ask(next) {
      asked = next;
      forget();
    },
    axes: () =>
      seen.map(({ least, most, values }, a) => ({
        rest: hundredths(rests?.[a] ?? last?.axes[a] ?? 0),
        least: hundredths(least),
        most: hundredths(most),
        steps: values.size,
      })),
    isTouched: () => isTouched,
  };
}

/**
 * Returns the four directions of a hat switch, clockwise from the top, each with the two values between it and its neighbours:
 * the values of a hat grow by equal steps around it. Anything else is returned as it is.
 */
export function withDiagonals(
  directions: readonly (PadSource | undefined)[],
): readonly (PadSource | undefined)[] {
  const hats = directions.map(source => (source?.kind === "hat" ? source : undefined));
  const [up, right] = hats;
  if (!up || !right || hats.some(hat => hat?.axis !== up.axis)) return directions;
  const step = (right.at[0]! - up.at[0]!) / 2;
  const values = hats.map(hat => hat!.at[0]!);
  return values.map((value, k) => ({
    kind: "hat",
    axis: up.axis,
    at: [value, hundredths(value + step), hundredths(values[(k + 3) % 4]! + step)],
  }));
}
