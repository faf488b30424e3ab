import { readTake, type InputColumns } from "../input/inputColumns";
import type { Take } from "../input/takeSchema";
import { compile } from "../kit/compile";
import { writeAt } from "../kit/editAt";
import { listNumbers, type KitNumber } from "../kit/listNumbers";
import type { Kit } from "../kit/schema";
import type { KitProgram } from "../patterns/kinds";
import { run } from "../run/run";
import { parseFrames } from "../time/duration";
import { formatPhasedTrace } from "../trace/formatTrace";
import {
  createPerforming,
  listInputs,
  MAX_FRAMES,
  TAIL,
  toTake,
  type ScriptsOf,
  type Work,
} from "./boundaryInputs";
import { settleFrames } from "./overlaps/scripts";

/** A number of a kit with the inputs that distinguish it from the next smaller and the next larger one. */
export interface Boundary {
  readonly number: KitNumber;
  /** One or two takes; empty if none of the inputs that were tried does. */
  readonly takes: readonly Take[];
  /** Whether they distinguish it from both neighbours, as far as the kit compiles with them. */
  readonly isWhole: boolean;
  readonly tried: number;
}

/** Inputs of a number are tried up to this many. */
const MAX_TRIES = 1000;
/** The inputs that are still tried for one that shows a number in other events, once both sides are shown in phases. */
const MAX_MORE_TRIES = 80;
/** The most numbers that are tried; the rest counts as not found. */
const MAX_NUMBERS = 150;
/**
 * The work for all numbers of a kit together, so that the largest kits take seconds: a rule run for a frame is 1, and
 * compiling it is as much as COMPILING frames. Numbers beyond it count as not found.
 */
const MAX_WORK = 130_000_000;
const COMPILING = 200;
/** One number may take the share of three of those that are left, and at most half of the work, so that the last ones are tried as well. */
const SHARES = 3;
const MAX_SHARE = 0.5;

/** Returns a kit in which a number is one frame, or one, more or less; undefined if there is none, or it does not compile. */
function stepNumber(kit: Kit, { path, kind, value, rounding }: KitNumber, by: 1 | -1): Kit | undefined {
  if (kind !== "length") return writeAt(kit, path, Number(value) + by);
  const frames = (parseFrames(String(value), kit.rate, rounding ?? "atLeast") ?? 0) + by;
  return frames < 0 ? undefined : writeAt(kit, path, `${frames}f`);
}

/** Returns the events of a run as text: those of phases, and the others. */
function eventsOf(
  program: KitProgram,
  columns: InputColumns,
): { readonly plain: string; readonly phases: string } {
  const { events } = formatPhasedTrace(program, run(program, columns));
  const [phases, plain] = [true, false].map(isPhase =>
    JSON.stringify(events.filter(({ kind }) => (kind === "phase") === isPhase)),
  );
  return { plain: plain!, phases: phases! };
}

/** Returns how many rules a kit has, with the steps of sequences and the needs of moves. */
function countRules({ controls, gates = [], patterns, moves = [], prompts = [] }: Kit): number {
  const steps = patterns.flatMap(pattern => ("steps" in pattern ? pattern.steps : []));
  const needs = moves.flatMap(move => move.needs ?? []);
  return [controls, gates, patterns, steps, moves, needs, prompts].reduce(
    (sum, list) => sum + list.length,
    0,
  );
}

/** The search over all numbers of a kit. */
interface Search {
  readonly kit: Kit;
  readonly program: KitProgram;
  readonly work: Work;
  readonly scriptsOf: ScriptsOf;
}

/**
 * Finds the inputs that distinguish one number, at a place in the list, from its neighbours. Leaves `stopAt` of the work.
 */
function findBoundary(
  { kit, program, work, scriptsOf }: Search,
  number: KitNumber,
  place: number,
  stopAt: number,
): Boundary {
  const written = Number(
    number.kind === "length"
      ? parseFrames(String(number.value), kit.rate, number.rounding ?? "atLeast")
      : number.value,
  );
  const others = ([1, -1] as const).flatMap(by => {
    const changed = stepNumber(kit, number, by);
    const compiled = changed && compile(changed);
    return changed && compiled?.ok ? [{ kit: changed, program: compiled.value }] : [];
  });
  work.left -= 2 * COMPILING * work.rules;
  if (others.length === 0 || !Number.isFinite(written) || written > MAX_FRAMES / 2)
    return { number, takes: [], isWhole: false, tried: 0 };
  const own = number.kind === "length" ? written : 0;
  const tail = Math.max(TAIL, own + 10, settleFrames(kit) + 10);
  const takes: Take[] = [];
  const left = new Set(others);
  /** Inputs that show a number only in phases: a game that does not report its phases learns nothing from them. */
  const inPhases = new Map<(typeof others)[number], Take>();
  let tried = 0;
  let last = MAX_TRIES;
  for (const input of listInputs(
    [kit, ...others.map(other => other.kit)],
    program,
    scriptsOf,
    number,
    Math.round(written),
  )) {
    if (left.size === 0 || tried === last || work.left <= stopAt) break;
    tried++;
    const name = `${number.rule}, ${number.label}`;
    const take = toTake(kit, `boundary-${place}-${tried}`, name, input, tail);
    const columns = readTake(program, take);
    work.left -= (1 + left.size) * work.rules * take.frames;
    const unchanged = eventsOf(program, columns);
    let isFound = false;
    for (const other of left) {
      const { plain, phases } = eventsOf(other.program, columns);
      if (plain !== unchanged.plain) {
        left.delete(other);
        isFound = true;
      } else if (phases !== unchanged.phases && !inPhases.has(other)) inPhases.set(other, take);
    }
    if (isFound) takes.push(take);
    if ([...left].every(other => inPhases.has(other))) last = Math.min(last, tried + MAX_MORE_TRIES);
  }
  const more = [...left].flatMap(other => inPhases.get(other) ?? []);
  const isWhole = more.length === left.size;
  return { number, takes: [...new Set([...takes, ...more])], isWhole, tried };
}

/**
 * Returns, for each number that the sentences of a kit show, inputs under which the kit gives another trace than with that
 * number one frame (or one) larger and smaller: in events of rules if such an input is found, else in phases of moves alone.
 * Takes play without a stage: gates are painted. `kit` must compile and should have no stage. `onProgress` is called before each
 * number, with how many are done.
 */
export function findBoundaries(
  kit: Kit,
  onProgress?: (done: number, of: number) => void,
): readonly Boundary[] {
  const compiled = compile(kit);
  if (!compiled.ok) return [];
  const numbers = listNumbers(kit);
  const work: Work = { rules: countRules(kit), left: MAX_WORK };
  const program = compiled.value;
  const search = { kit, program, work, scriptsOf: createPerforming(kit, program, work) };
  return numbers.map((number, place) => {
    if (place >= MAX_NUMBERS || work.left <= 0) return { number, takes: [], isWhole: false, tried: 0 };
    onProgress?.(place, Math.min(numbers.length, MAX_NUMBERS));
    const numbersLeft = Math.min(numbers.length, MAX_NUMBERS) - place;
    const share = numbersLeft === 1 ? 1 : Math.min(MAX_SHARE, SHARES / numbersLeft);
    const stopAt = work.left * (1 - share);
    return findBoundary(search, number, place, stopAt);
  });
}
