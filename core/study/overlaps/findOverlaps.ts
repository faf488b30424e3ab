import { groupLanes } from "../../input/groupLanes";
import type { Take } from "../../input/takeSchema";
import { compile } from "../../kit/compile";
import type { Kit } from "../../kit/schema";
import { evaluate } from "../../run/run";
import { isPressKey, type Program } from "../../program/program";
import { notes } from "../../trace/noteKinds";
import { edgesOf } from "../../trace/notes/edgeList";
import type { Trace } from "../../trace/trace";
import { readTake } from "../../input/inputColumns";
import { readOutcomes } from "../outcomes/readOutcomes";
import { prepareBare, type PrepareRun } from "../prepareRun";
import { layOver, listScripts, settleFrames, shiftScript, sizeOf, type Script } from "./scripts";

/** Two rules set off by one input, with the input. */
export interface Overlap {
  readonly list: "patterns" | "moves";
  /** Their indices in the kit; `first` comes first, or is listed first if both come on one frame. */
  readonly first: number;
  readonly second: number;
  /**
   * How often `second` came, and how often without `first` from a shared press: in the tried inputs, and in
   * the takes.
   */
  readonly inInputs: Together;
  readonly inTakes: Together;
  /** The shortest input found, as a take, or the first of the takes that shows it if none does; and the frames of both rules in it. */
  readonly witness: Take;
  readonly isPlayed: boolean;
  readonly firstFrame: number;
  readonly secondFrame: number;
  /** The mode in which it was tried, if the kit has modes. */
  readonly mode: string | undefined;
}

/** How often a rule came, and how often without another. */
export interface Together {
  readonly total: number;
  readonly alone: number;
}

/** A pair without a found overlap, with the extent of the search. */
export interface NoOverlap {
  readonly list: Overlap["list"];
  readonly first: number;
  readonly second: number;
  /** The number of inputs run, and the length of the longest, in frames. */
  readonly tried: number;
  readonly frames: number;
}

/** A rule that no tried input sets off, in any mode. */
export interface Silent {
  readonly list: Overlap["list"];
  readonly index: number;
  readonly tried: number;
  readonly frames: number;
}

/** The result of a search. */
export interface Overlaps {
  readonly found: readonly Overlap[];
  readonly none: readonly NoOverlap[];
  readonly silent: readonly Silent[];
  /** The total number of inputs run. */
  readonly runs: number;
}

/** Frames added before and after an input, for late effects. */
const BEFORE = 5;
const TAIL_SECONDS = 1;
/** The maximum number of inputs tried per pair. */
const MAX_TRIES = 400;

interface Tried {
  readonly take: Take;
  readonly script: Script;
  readonly mode: number;
  /** By pattern and by move: the frames on which it came, each with its press edges. */
  readonly fires: ReadonlyMap<number, readonly Occurrence[]>;
  readonly moves: ReadonlyMap<number, readonly Occurrence[]>;
}

interface Occurrence {
  readonly frame: number;
  readonly edges: readonly number[];
}

/** Gates held open: all along, or until the frame after the first press, as where a move itself leaves the ground. */
interface Held {
  readonly gates: readonly string[];
  readonly isLeft: boolean;
}

function takeOf(kit: Kit, script: Script, id: string, { gates, isLeft }: Held): Take {
  const lanes = groupLanes(
    script.flatMap(({ control, from, to }): [string, number, number][] => [
      [control, BEFORE + from, 1],
      [control, BEFORE + to, 0],
    ]),
  );
  const firstPress = script.reduce((least, { from }) => Math.min(least, from), Infinity);
  const changes: [number, 0 | 1][] = [
    [0, 1],
    ...(isLeft ? [[BEFORE + firstPress + 1, 0] as [number, 0]] : []),
  ];
  const tail = Math.ceil(TAIL_SECONDS * kit.rate) + settleFrames(kit);
  const frames = BEFORE + sizeOf(script).frames + tail;
  return {
    format: "moss-tap/take",
    version: 1,
    id,
    name: id,
    kit: kit.id,
    rate: kit.rate,
    frames,
    lanes,
    ...(gates.length > 0 ? { gates: Object.fromEntries(gates.map(gate => [gate, changes])) } : {}),
  };
}

function gather(program: Program, trace: Trace): Pick<Tried, "fires" | "moves"> {
  const fires = new Map<number, Occurrence[]>();
  const moves = new Map<number, Occurrence[]>();
  const pressesOf = (edges: readonly number[]) => edges.filter(key => isPressKey(program, key));
  const add = (map: Map<number, Occurrence[]>, index: number, total: Occurrence) => {
    const own = map.get(index);
    if (own) own.push(total);
    else map.set(index, [total]);
  };
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === notes.fired.code)
      add(fires, trace.subject[i]!, { frame: trace.frame[i]!, edges: pressesOf(edgesOf(trace, i)) });
  for (const { move, end, frame, note } of readOutcomes(program, trace).requests)
    if (end === "performed") add(moves, move, { frame, edges: pressesOf(edgesOf(trace, note)) });
  return { fires, moves };
}

const share = (one: Occurrence, two: Occurrence) => one.edges.some(edge => two.edges.includes(edge));

/** Returns the first occurrence of two rules from a shared press edge. */
function firstShared(
  a: readonly Occurrence[] = [],
  b: readonly Occurrence[] = [],
): readonly [Occurrence, Occurrence] | undefined {
  for (const one of a) for (const two of b) if (share(one, two)) return [one, two];
  return undefined;
}

type Occurrences = Pick<Tried, "fires" | "moves">;

const cameOf = (list: Overlap["list"], of: Occurrences, index: number): readonly Occurrence[] =>
  (list === "patterns" ? of.fires : of.moves).get(index) ?? [];

/** Counts how often a rule came in some runs, and how often without a press that another also used. */
function countTogether(
  runs: readonly Occurrences[],
  list: Overlap["list"],
  first: number,
  second: number,
): Together {
  let total = 0;
  let alone = 0;
  for (const run of runs) {
    const firsts = cameOf(list, run, first);
    for (const one of cameOf(list, run, second)) {
      total++;
      if (!firsts.some(other => share(one, other))) alone++;
    }
  }
  return { total, alone };
}

/**
 * Returns the gates to hold open so that some of the moves find their needs met: also those that count events, of which inputs have
 * too few. Gates that ban one of the moves, last with a pattern, or are open while none of others is, are left alone.
 */
function listHeldGates(program: Program, moves: readonly number[]): string[] {
  const banning = new Set(moves.flatMap(m => program.moves[m]!.bans));
  const held = new Set<number>();
  const hold = (g: number) => {
    const { isListed, derive, of } = program.gates[g]!;
    if (held.has(g) || banning.has(g) || !isListed) return;
    if (derive === "plain" || derive === "fires" || derive === "performs") held.add(g);
    else if (derive === "all" || derive === "any") of.forEach(hold);
  };
  for (const m of moves) for (const { gate } of program.moves[m]!.needs) hold(gate);
  return [...held].map(g => program.gates[g]!.id);
}

/** Returns the moves whose outputs some moves need, which no take can hold open. */
function listOutputs({ moves, gates }: Program, of: readonly number[]): number[] {
  const needed = new Set(of.flatMap(m => moves[m]!.needs.map(({ gate }) => gate)));
  return moves.flatMap(({ outputGate, isOff }, m) =>
    !isOff && !of.includes(m) && outputGate >= 0 && gates[outputGate]!.isOutput && needed.has(outputGate)
      ? [m]
      : [],
  );
}

/** Returns a script that begins on the frame after the end of another. */
const follow = (lead: Script, script: Script): Script =>
  lead.length === 0 ? script : [...lead, ...shiftScript(script, sizeOf(lead).frames + 1)];

/**
 * Searches for inputs that set off two rules at once. For each two patterns that share a control, their
 * boundary inputs are run alone and overlaid so that a press falls on one edge, in every mode in which both
 * are active; for each two moves those of their patterns, with the gates held open that both need, all along or, if none of
 * these does, until the first press, and after an input of each move whose output one of them needs. A witness is the shortest such input, by
 * frames and then by edges, run without the stage; or a take, if inputs show none. `takes` are run with `prepare`, also to
 * count how often one rule came without the other. Yields after every take and every pair.
 */
export function* findOverlaps(
  kit: Kit,
  takes: readonly Take[] = [],
  prepare: PrepareRun = prepareBare,
): Generator<{ readonly done: number; readonly of: number; readonly found?: Overlap }, Overlaps> {
  const compiled = compile(kit);
  if (!compiled.ok) return { found: [], none: [], silent: [], runs: 0 };
  const program = compiled.value;
  const modes = program.modes.length === 0 ? [0] : program.modes.map((_, m) => m);
  const programs = modes.map(m => {
    const mode = kit.modes?.[m];
    const started = mode ? compile({ ...kit, start: mode.id }) : compiled;
    return started.ok ? started.value : program;
  });
  const known = new Map<string, Tried>();
  const scripts = kit.patterns.map(pattern => (pattern.off ? [] : listScripts(kit, pattern)));
  const tryScript = (script: Script, mode: number, held: Held): Tried => {
    const key = `${mode} ${held.isLeft} ${held.gates.join()} ${JSON.stringify([...script].sort((a, b) => (a.control < b.control ? -1 : a.control > b.control ? 1 : a.from - b.from)))}`;
    const before = known.get(key);
    if (before) return before;
    const take = takeOf(kit, script, `tried-${known.size}`, held);
    const trace = evaluate(programs[mode]!, take);
    const tried = { take, script, mode, ...gather(programs[mode]!, trace) };
    known.set(key, tried);
    return tried;
  };
  const isActive = (pattern: number, mode: number) =>
    !program.patterns[pattern]!.isOff && program.patterns[pattern]!.activeIn[mode] !== false;
  const sharesControl = (a: number, b: number) =>
    program.patterns[a]!.controls.some(control => program.patterns[b]!.controls.includes(control));
  const bySize = (a: Tried, b: Tried) => {
    const [x, y] = [sizeOf(a.script), sizeOf(b.script)];
    return x.frames - y.frames || x.edges - y.edges;
  };
  /** Returns the gates to hold open for some moves, and the shortest input that turns on the outputs they need. */
  const setUp = (moves: readonly number[], mode: number) => {
    const outputs = listOutputs(program, moves);
    const gates = listHeldGates(program, [...moves, ...outputs]);
    const leads = outputs.flatMap(m => {
      const tried = scripts[program.moves[m]!.pattern]!.map(script =>
        tryScript(script, mode, { gates, isLeft: false }),
      );
      return tried
        .filter(one => one.moves.has(m))
        .sort(bySize)
        .slice(0, 1);
    });
    return { gates, lead: leads.reduce((all: Script, { script }) => follow(all, script), []) };
  };
  const inputsFor = (
    [a, b]: readonly [number, number],
    moves: readonly number[],
    isLeft: boolean,
  ): Tried[] => {
    const ways = scripts[a]!.flatMap(one => scripts[b]!.flatMap(two => layOver(one, two)));
    const all = [...scripts[a]!, ...scripts[b]!, ...ways].slice(0, MAX_TRIES);
    const inModes = modes.filter(mode => isActive(a, mode) && isActive(b, mode));
    const inMode = (mode: number) => {
      const { gates, lead } = setUp(moves, mode);
      if (isLeft && (gates.length === 0 || lead.length > 0)) return [];
      return all.map(script => tryScript(follow(lead, script), mode, { gates, isLeft }));
    };
    return inModes.flatMap(inMode).sort(bySize);
  };
  const found: Overlap[] = [];
  const none: NoOverlap[] = [];
  const pairs: { list: Overlap["list"]; a: number; b: number; patterns: [number, number] }[] = [];
  kit.patterns.forEach((_, a) =>
    kit.patterns.forEach((_, b) => {
      if (a < b && scripts[a]!.length > 0 && scripts[b]!.length > 0 && sharesControl(a, b))
        pairs.push({ list: "patterns", a, b, patterns: [a, b] });
    }),
  );
  program.moves.forEach((one, a) =>
    program.moves.forEach((two, b) => {
      if (a >= b || one.isOff || two.isOff) return;
      const patterns: [number, number] = [one.pattern, two.pattern];
      if (one.pattern === two.pattern || sharesControl(...patterns))
        pairs.push({ list: "moves", a, b, patterns });
    }),
  );
  const played: (Occurrences & { readonly take: Take; readonly mode: undefined })[] = [];
  const ready = takes.length > 0 ? prepare(kit) : undefined;
  for (const take of ready ? takes : []) {
    played.push({
      ...gather(ready!.program, ready!.run(readTake(ready!.program, take))),
      take,
      mode: undefined,
    });
    yield { done: 0, of: pairs.length };
  }
  for (const [done, { list, a, b, patterns }] of pairs.entries()) {
    const moves = list === "moves" ? [a, b] : [];
    const setsOff = (one: Occurrences) => firstShared(cameOf(list, one, a), cameOf(list, one, b));
    const held = inputsFor(patterns, moves, false);
    const tried = held.some(setsOff) ? held : [...held, ...inputsFor(patterns, moves, true)];
    const witness = [...tried, ...played].find(setsOff);
    const frames = tried.reduce((most, { script }) => Math.max(most, sizeOf(script).frames), 0);
    if (!witness) {
      none.push({ list, first: a, second: b, tried: tried.length, frames });
      yield { done: done + 1, of: pairs.length };
      continue;
    }
    const [cameA, cameB] = setsOff(witness)!;
    const isAFirst = cameA.frame <= cameB.frame;
    const [first, second] = isAFirst ? [a, b] : [b, a];
    const overlap: Overlap = {
      list,
      first,
      second,
      inInputs: countTogether(tried, list, first, second),
      inTakes: countTogether(played, list, first, second),
      witness: witness.take,
      isPlayed: witness.mode === undefined,
      firstFrame: Math.min(cameA.frame, cameB.frame),
      secondFrame: Math.max(cameA.frame, cameB.frame),
      mode: witness.mode === undefined ? undefined : kit.modes?.[witness.mode]?.id,
    };
    found.push(overlap);
    yield { done: done + 1, of: pairs.length, found: overlap };
  }
  const silent: Silent[] = [];
  const look = (list: Overlap["list"], index: number, pattern: number) => {
    if (program.patterns[pattern]!.isOff) return;
    const inMode = (mode: number) => {
      const { gates, lead } = setUp(list === "moves" ? [index] : [], mode);
      return scripts[pattern]!.map(script => tryScript(follow(lead, script), mode, { gates, isLeft: false }));
    };
    const tried = modes.filter(mode => isActive(pattern, mode)).flatMap(inMode);
    const all = [...tried, ...known.values()];
    if ([...all, ...played].some(one => (list === "patterns" ? one.fires : one.moves).has(index))) return;
    const frames = all.reduce((most, { script }) => Math.max(most, sizeOf(script).frames), 0);
    silent.push({ list, index, tried: all.length, frames });
  };
  program.patterns.forEach((_, p) => look("patterns", p, p));
  program.moves.forEach((move, m) => move.isOff || look("moves", m, move.pattern));
  return { found, none, silent, runs: known.size };
}
