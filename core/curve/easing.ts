import { ownValue } from "../formats/ownValue";
import bezier from "bezier-easing";
import { BOUNDS } from "../formats/bounds";

/**
 * An easing curve as plain data. `points` is CSS `linear()`; `steps` is CSS `steps()`, with `jumps` the
 * number of jumps and `offset` the jumps already made at 0. Source: CSS Easing Functions Level 2.
 */
export type Easing =
  | { readonly kind: "linear" }
  | {
      readonly kind: "bezier";
      readonly x1: number;
      readonly y1: number;
      readonly x2: number;
      readonly y2: number;
    }
  | { readonly kind: "points"; readonly inputs: readonly number[]; readonly outputs: readonly number[] }
  | { readonly kind: "steps"; readonly steps: number; readonly jumps: number; readonly offset: number };

export type ParsedEasing =
  | { readonly ok: true; readonly value: Easing }
  | { readonly ok: false; readonly detail: string };

const KEYWORDS: Readonly<Record<string, string>> = {
  ease: "cubic-bezier(0.25, 0.1, 0.25, 1)",
  "ease-in": "cubic-bezier(0.42, 0, 1, 1)",
  "ease-out": "cubic-bezier(0, 0, 0.58, 1)",
  "ease-in-out": "cubic-bezier(0.42, 0, 0.58, 1)",
  "step-start": "steps(1, jump-start)",
  "step-end": "steps(1, jump-end)",
};

const WRITTEN = /^[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?$/i;

/** Matches a finite number in CSS notation. */
const NUMBER = {
  test: (written: string) => WRITTEN.test(written) && Math.abs(Number(written)) <= BOUNDS.curveReach * 100,
};

function refuse(detail: string): ParsedEasing {
  return { ok: false, detail };
}

function parseBezier(parts: readonly string[]): ParsedEasing {
  if (parts.length !== 4 || !parts.every(part => NUMBER.test(part))) {
    return refuse("cubic-bezier takes four numbers, x1, y1, x2, y2");
  }
  const [x1, y1, x2, y2] = parts.map(Number) as [number, number, number, number];
  if (Math.max(Math.abs(y1), Math.abs(y2)) > BOUNDS.curveReach)
    return refuse(`a curve may reach ${BOUNDS.curveReach} from 0, no farther`);
  if (x1 < 0 || x1 > 1 || x2 < 0 || x2 > 1) return refuse("both x of a cubic-bezier lie between 0 and 1");
  return { ok: true, value: { kind: "bezier", x1, y1, x2, y2 } };
}

interface Stop {
  input: number | undefined;
  readonly output: number;
}

/** Parses one entry of linear(): a number and up to two percentages, which make one stop or two. */
function parseStops(part: string): Stop[] | undefined {
  const words = part.split(/\s+/);
  const percents = words.filter(word => word.endsWith("%"));
  const numbers = words.filter(word => !word.endsWith("%"));
  if (numbers.length !== 1 || percents.length > 2 || !NUMBER.test(numbers[0]!)) return undefined;
  if (!percents.every(percent => NUMBER.test(percent.slice(0, -1)))) return undefined;
  if (!words[0]!.endsWith("%") || !words.at(-1)!.endsWith("%") || words.length === 1) {
    const output = Number(numbers[0]);
    if (Math.abs(output) > BOUNDS.curveReach) return undefined;
    if (percents.length === 0) return [{ input: undefined, output }];
    return percents.map(percent => ({ input: Number(percent.slice(0, -1)) / 100, output }));
  }
  return undefined;
}

/** Fills in the input of every stop: 0 and 1 at the ends, never decreasing, unplaced stops evenly spaced. */
function parsePoints(parts: readonly string[]): ParsedEasing {
  const stops: Stop[] = [];
  for (const part of parts) {
    const found = parseStops(part);
    if (!found)
      return refuse(
        `"${part}" is not a stop: write a number within ${BOUNDS.curveReach} of 0 and at most two percentages`,
      );
    stops.push(...found);
  }
  if (stops.length === 0) return refuse("linear() takes at least one number");
  stops[0]!.input ??= 0;
  stops.at(-1)!.input ??= 1;
  let largest = -Infinity;
  for (const stop of stops) {
    if (stop.input === undefined) continue;
    largest = Math.max(largest, stop.input);
    stop.input = largest;
  }
  for (let i = 0; i < stops.length; i++) {
    if (stops[i]!.input !== undefined) continue;
    let next = i;
    while (stops[next]!.input === undefined) next++;
    const low = stops[i - 1]!.input!;
    const span = stops[next]!.input! - low;
    const gaps = next - i + 1;
    for (let k = i; k < next; k++) stops[k]!.input = low + (span * (k - i + 1)) / gaps;
  }
  return {
    ok: true,
    value: {
      kind: "points",
      inputs: stops.map(stop => stop.input!),
      outputs: stops.map(stop => stop.output),
    },
  };
}

function parseSteps(parts: readonly string[]): ParsedEasing {
  const steps = Number(parts[0]);
  const position = parts[1] ?? "end";
  if (!/^\d+$/.test(parts[0] ?? "") || steps < 1 || parts.length > 2)
    return refuse("steps() takes a whole number of steps");
  if (position === "start" || position === "jump-start")
    return { ok: true, value: { kind: "steps", steps, jumps: steps, offset: 1 } };
  if (position === "end" || position === "jump-end")
    return { ok: true, value: { kind: "steps", steps, jumps: steps, offset: 0 } };
  if (position === "jump-both")
    return { ok: true, value: { kind: "steps", steps, jumps: steps + 1, offset: 1 } };
  if (position === "jump-none" && steps > 1)
    return { ok: true, value: { kind: "steps", steps, jumps: steps - 1, offset: 0 } };
  return refuse(`"${position}" is not a place for a jump`);
}

/**
 * Parses a CSS easing function: `linear`, the `ease` keywords, `cubic-bezier()`, `linear()` and `steps()`.
 * Case and extra spaces are ignored. Returns a reason with a cure if the text is not an easing function.
 * Example: `parseEasing("cubic-bezier(0.2, 0, 0, 1)")`.
 */
export function parseEasing(source: string): ParsedEasing {
  if (source.length > BOUNDS.curveLetters) return refuse(`it is longer than ${BOUNDS.curveLetters} letters`);
  const written = source.trim().toLowerCase();
  if (written === "linear") return { ok: true, value: { kind: "linear" } };
  const found = /^([a-z-]+)\(([^()]*)\)$/.exec(ownValue(KEYWORDS, written) ?? written);
  if (!found)
    return refuse("write linear, ease, ease-in, ease-out, ease-in-out, cubic-bezier(…) or linear(…)");
  const parts = found[2]!.split(",").map(part => part.trim());
  if (found[1] === "cubic-bezier") return parseBezier(parts);
  if (found[1] === "linear") return parsePoints(parts);
  if (found[1] === "steps") return parseSteps(parts);
  return refuse(`"${found[1]}" is not an easing function`);
}

const solvers = new WeakMap<Easing, (x: number) => number>();

/**
 * Interpolates between two stops, and extrapolates the outermost pair beyond the ends. Source: CSS Easing
 * Level 2, section 2.2.
 */
function evaluatePoints(inputs: readonly number[], outputs: readonly number[], x: number): number {
  const last = inputs.length - 1;
  if (last === 0) return outputs[0]!;
  let at = 0;
  for (let i = 0; i <= last; i++) if (inputs[i]! <= x) at = i;
  if (at === last) at--;
  const range = inputs[at + 1]! - inputs[at]!;
  if (range === 0) return outputs[at + 1]!;
  return outputs[at]! + ((x - inputs[at]!) / range) * (outputs[at + 1]! - outputs[at]!);
}

/**
 * Returns the curve's output at `ratio` (0 to 1; the caller clamps it). A bezier is solved by
 * `bezier-easing`.
 */
export function evaluateEasing(easing: Easing, ratio: number): number {
  switch (easing.kind) {
    case "linear":
      return ratio;
    case "points":
      return evaluatePoints(easing.inputs, easing.outputs, ratio);
    case "steps":
      return Math.min(easing.jumps, Math.floor(ratio * easing.steps) + easing.offset) / easing.jumps;
    case "bezier": {
      let solve = solvers.get(easing);
      if (!solve) solvers.set(easing, (solve = bezier(easing.x1, easing.y1, easing.x2, easing.y2)));
      return solve(ratio);
    }
  }
}
