import { groupLanes } from "../input/groupLanes";
import { readTake } from "../input/inputColumns";
import type { Take } from "../input/takeSchema";
import { compile } from "../kit/compile";
import { readAt, writeAt } from "../kit/editAt";
import { listNumbers, type KitNumber } from "../kit/listNumbers";
import type { Gate, Kit, Move, Prompt } from "../kit/schema";
import type { KitProgram } from "../patterns/kinds";
import { run } from "../run/run";
import { parseFrames } from "../time/duration";
import { formatPhasedTrace } from "../trace/formatTrace";
import { listScripts, shiftScript, type Script } from "./overlaps/scripts";

/** A number of a kit with the inputs that distinguish it from the next smaller and the next larger one. */
export interface Boundary {
  readonly number: KitNumber;
  /** One or two takes; empty if none of the inputs that were tried does. */
  readonly takes: readonly Take[];
  /** Whether they distinguish it from both neighbours, as far as the kit compiles with them. */
  readonly isWhole: boolean;
  readonly tried: number;
}

/** Inputs of a number are tried up to this many, and lengths up to so many frames. */
const MAX_TRIES = 1000;
const MAX_FRAMES = 1200;
/** The most numbers that are tried; the rest counts as not found. */
const MAX_NUMBERS = 150;
/**
 * The work for all numbers of a kit together, so that the largest kits take seconds: a rule run for a frame is 1, and
 * compiling it is as much as COMPILING frames. Numbers beyond it count as not found.
 */
const MAX_WORK = 100_000_000;
const COMPILING = 200;
/** The most scripts of one pattern. */
const MAX_SCRIPTS = 8;
/** The frames before the first press, so that a gate can change before it. */
const LEAD = 30;
const TAIL = 40;

type Changes = NonNullable<Take["gates"]>;
interface Input {
  readonly script: Script;
  readonly gates: Changes;
}

/** Returns a kit in which a number is one frame, or one, more or less; undefined if there is none, or it does not compile. */
function stepNumber(kit: Kit, { path, kind, value, rounding }: KitNumber, by: 1 | -1): Kit | undefined {
  if (kind !== "length") return writeAt(kit, path, Number(value) + by);
  const frames = (parseFrames(String(value), kit.rate, rounding ?? "atLeast") ?? 0) + by;
  return frames < 0 ? undefined : writeAt(kit, path, `${frames}f`);
}

const lastPress = (script: Script) => script.reduce((last, { from }) => Math.max(last, from), 0);
const endOf = (script: Script) => script.reduce((last, { to }) => Math.max(last, to), 0);

/** The gates that a take can paint: those that nothing derives. */
function paintable({ gates = [] }: Kit): string[] {
  const derived = ["all", "any", "none", "while", "fires", "performs"] as const;
  return gates.filter((gate: Gate) => derived.every(key => gate[key] === undefined)).map(({ id }) => id);
}

/** Returns the patterns whose presses can show a number: its own, or those of the moves and prompts that it is about. */
function patternsOf(kit: Kit, { path: [list, index] }: KitNumber): string[] {
  const rule = readAt(kit, [list!, index!]);
  if (list === "patterns") return [kit.patterns[Number(index)]!.id];
  if (list === "moves") {
    const { pattern, needs = [] } = rule as Move;
    const openers = (kit.moves ?? []).filter(move =>
      move.opens?.some(({ gate }) => needs.some(need => need.gate === gate)),
    );
    return [pattern, ...openers.map(move => move.pattern)];
  }
  if (list === "prompts") return [...(rule as Prompt).ask];
  const { id, while: pattern, fires, performs } = rule as Gate;
  const moves = (kit.moves ?? []).filter(
    move => move.id === performs || move.needs?.some(need => need.gate === id) || move.bans?.includes(id),
  );
  return [pattern, fires, ...moves.map(move => move.pattern)].filter(found => found !== undefined);
}

/**
 * Returns the frames on which a prompt changes, if nobody answers any: when it is shown and opens, its target, and the end
 * of its window.
 */
function promptFrames(kit: Kit, program: KitProgram, { path: [list, index] }: KitNumber): number[] {
  if (list !== "prompts") return [];
  const idle = toTake(kit, "idle", "Idle", { script: [], gates: openGates(kit, "", LEAD, MAX_FRAMES) });
  const { events } = formatPhasedTrace(
    program,
    run(program, readTake(program, { ...idle, frames: MAX_FRAMES })),
  );
  const own = kit.prompts![Number(index)]!.id;
  const shown = events.find(
    event => event.kind === "prompt" && event.id === own && event.outcome === "shown",
  );
  const { lead = "0f", window, target = "0f", grades = [] } = kit.prompts![Number(index)]!;
  const frames = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const opens = (shown?.f ?? LEAD) + frames(lead);
  const best = opens + frames(target);
  const reaches = grades.flatMap(({ within, early = within, late = within }) => [
    -frames(early),
    frames(late),
  ]);
  return [opens, opens + frames(window), best, ...reaches.map(reach => best + reach)];
}

/** Paints every paintable gate open, one of them only from a frame until another. */
function openGates(kit: Kit, except = "", from = 0, to = 0): Changes {
  return Object.fromEntries(
    paintable(kit).map((id): [string, [number, 0 | 1][]] => [
      id,
      id === except
        ? [
            [from, 1],
            [to, 0],
          ]
        : [[0, 1]],
    ]),
  );
}

/** Yields a script alone, with presses of other lengths, and several times in a row. */
function* repeatScript(kit: Kit, plain: Script, near: readonly number[]): Generator<Input> {
  const script = shiftScript(plain, LEAD);
  const gates = openGates(kit);
  yield { script, gates };
  yield { script, gates: {} };
  for (const longer of near)
    if (longer > 0) yield { script: script.map(press => ({ ...press, to: press.from + longer })), gates };
  for (const apart of [...near, endOf(plain) + 1])
    for (const times of [2, 3, 4])
      if (apart > endOf(plain))
        yield {
          script: Array.from({ length: times }, (_, k) => shiftScript(script, k * apart)).flat(),
          gates,
        };
}

/** Yields a script with one gate that closes just before it counts, or opens just after. `anchors`: when it may count. */
function* turnGates(
  kit: Kit,
  script: Script,
  anchors: readonly number[],
  near: readonly number[],
): Generator<Input> {
  for (const gate of paintable(kit))
    for (const at of anchors)
      for (const by of near.filter(frames => frames >= 0)) {
        yield { script, gates: openGates(kit, gate, 0, Math.max(1, at - by)) };
        yield { script, gates: openGates(kit, gate, at + by, at + by + TAIL) };
        yield { script, gates: openGates(kit, gate, at + 1, at + by + 2) };
      }
}

/** Yields scripts of the moves that open a gate which a move needs, each followed by the move's own script. */
function* followOpeners(
  kit: Kit,
  { path: [list, index] }: KitNumber,
  near: readonly number[],
): Generator<Input> {
  if (list !== "moves") return;
  const move = kit.moves![Number(index)]!;
  const scriptsOf = (id: string) =>
    listScripts(
      kit,
      kit.patterns.find(pattern => pattern.id === id)!,
    ).slice(0, 2);
  const frames = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const pairs = (kit.moves ?? []).flatMap(other => [
    ...(other.opens ?? []).flatMap(opening =>
      move.needs?.some(({ gate }) => gate === opening.gate) ? [{ first: other, then: move, opening }] : [],
    ),
    ...(move.opens ?? []).flatMap(opening =>
      other.needs?.some(({ gate }) => gate === opening.gate) ? [{ first: move, then: other, opening }] : [],
    ),
  ]);
  for (const { first, then, opening } of pairs)
    for (const one of scriptsOf(first.pattern))
      for (const two of scriptsOf(then.pattern)) {
        const begins = LEAD + lastPress(one);
        for (const edge of [frames(opening.from), frames(opening.to)])
          for (const by of [0, -1, 1, ...near.map(frame => -frame)]) {
            const at = begins + edge + by - lastPress(two);
            if (at > begins + 2)
              yield { script: [...shiftScript(one, LEAD), ...shiftScript(two, at)], gates: {} };
          }
      }
}

/** Returns the frames on which a pattern fires under an input. */
function firesOf(program: KitProgram, id: string, take: Take): number[] {
  return formatPhasedTrace(program, run(program, readTake(program, take))).events.flatMap(event =>
    event.kind === "fired" && event.id === id ? [event.f] : [],
  );
}

/** Yields inputs made of the boundaries of a number: presses just in time and just too late, alone and after others. */
function* listInputs(
  kits: readonly Kit[],
  program: KitProgram,
  number: KitNumber,
  value: number,
): Generator<Input> {
  const kit = kits[0]!;
  const near = [value - 1, value, value + 1, value + 2];
  yield* followOpeners(kit, number, near);
  for (const id of new Set(patternsOf(kit, number)))
    for (const own of kits) {
      const pattern = own.patterns.find(item => item.id === id);
      if (!pattern || pattern.off) continue;
      for (const plain of listScripts(own, pattern).slice(0, MAX_SCRIPTS)) {
        yield* repeatScript(kit, plain, near);
        for (const at of promptFrames(kit, program, number))
          for (const off of [-1, 0, 1, 2].filter(by => at + by >= lastPress(plain)))
            yield {
              script: shiftScript(plain, at + off - lastPress(plain)),
              gates: openGates(kit, "", LEAD, MAX_FRAMES),
            };
        const script = shiftScript(plain, LEAD);
        const fires = firesOf(program, id, toTake(kit, "probe", "Probe", { script, gates: openGates(kit) }));
        yield* turnGates(kit, script, [...new Set([lastPress(script), ...fires.slice(0, 2)])], near);
      }
    }
}

function toTake(kit: Kit, id: string, name: string, { script, gates }: Input): Take {
  const presses = [...script].sort((a, b) => a.from - b.from);
  const changes = presses.flatMap(({ control, from, to }, k): [string, number, number][] => {
    const next = presses.slice(k + 1).find(press => press.control === control);
    return [
      [control, from, 1],
      [control, Math.min(to, (next?.from ?? Infinity) - 1), 0],
    ];
  });
  const lengths = Object.values(gates).flatMap(lane => lane.map(([x]) => x));
  const frames = Math.min(MAX_FRAMES, Math.max(endOf(script), ...lengths, 0) + TAIL);
  const base = {
    format: "moss-tap/take",
    version: 1,
    id,
    name,
    kit: kit.id,
    rate: kit.rate,
    frames,
  } as const;
  return { ...base, lanes: groupLanes(changes), ...(Object.keys(gates).length > 0 ? { gates } : {}) };
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

/** How many rules a kit has, and the work that is left for its numbers. */
interface Work {
  readonly rules: number;
  left: number;
}

/** Finds the inputs that distinguish one number from its neighbours; `work` runs out over all numbers of a kit. */
function findBoundary(kit: Kit, program: KitProgram, number: KitNumber, place: number, work: Work): Boundary {
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
  const takes: Take[] = [];
  const left = new Set(others);
  let tried = 0;
  for (const input of listInputs(
    [kit, ...others.map(other => other.kit)],
    program,
    number,
    Math.round(written),
  )) {
    if (left.size === 0 || tried === MAX_TRIES || work.left <= 0) break;
    tried++;
    const take = toTake(kit, `boundary-${place}-${tried}`, `${number.rule}, ${number.label}`, input);
    const columns = readTake(program, take);
    work.left -= (1 + left.size) * work.rules * take.frames;
    const eventsOf = (of: KitProgram) => JSON.stringify(formatPhasedTrace(of, run(of, columns)).events);
    const own = eventsOf(program);
    const found = [...left].filter(other => eventsOf(other.program) !== own);
    for (const other of found) left.delete(other);
    if (found.length > 0) takes.push(take);
  }
  return { number, takes, isWhole: left.size === 0, tried };
}

/**
 * Returns, for each number that the sentences of a kit show, inputs under which the kit gives another trace, phases
 * included, than with that number one frame (or one) larger and smaller. Takes play without a stage: gates are painted.
 * `kit` must compile and should have no stage. `onProgress` is called before each number, with how many are done.
 */
export function findBoundaries(
  kit: Kit,
  onProgress?: (done: number, of: number) => void,
): readonly Boundary[] {
  const compiled = compile(kit);
  if (!compiled.ok) return [];
  const numbers = listNumbers(kit);
  const work: Work = { rules: countRules(kit), left: MAX_WORK };
  return numbers.map((number, place) => {
    if (place >= MAX_NUMBERS || work.left <= 0) return { number, takes: [], isWhole: false, tried: 0 };
    onProgress?.(place, Math.min(numbers.length, MAX_NUMBERS));
    return findBoundary(kit, compiled.value, number, place, work);
  });
}
