import { groupLanes } from "../input/groupLanes";
import { readTake } from "../input/inputColumns";
import type { Take } from "../input/takeSchema";
import { outputGate } from "../kit/compileNames";
import { readAt } from "../kit/editAt";
import type { KitNumber } from "../kit/listNumbers";
import type { Gate, Kit, Move, Prompt } from "../kit/schema";
import type { KitProgram } from "../patterns/kinds";
import { run } from "../run/run";
import { parseFrames } from "../time/duration";
import { formatPhasedTrace } from "../trace/formatTrace";
import { layOver, listScripts, shiftScript, type Script } from "./overlaps/scripts";

/** The most frames of an input. */
export const MAX_FRAMES = 1200;
/** The most scripts of one pattern, and the most pairs of moves tried one after the other for a number. */
const MAX_SCRIPTS = 8;
const MAX_FOLLOWS = 40;
/** The frames before the first press, so that a gate can change before it. */
const LEAD = 30;
export const TAIL = 40;

type Changes = NonNullable<Take["gates"]>;
/** Presses, with the changes of the gates that are painted beside them. */
export interface Input {
  readonly script: Script;
  readonly gates: Changes;
}

/** How many rules a kit has, and the work that is left for its numbers. */
export interface Work {
  readonly rules: number;
  left: number;
}

const lastPress = (script: Script) => script.reduce((last, { from }) => Math.max(last, from), 0);
const endOf = (script: Script) => script.reduce((last, { to }) => Math.max(last, to), 0);

/** The gates that a take can paint: those that nothing derives. */
function paintable({ gates = [] }: Kit): string[] {
  const derived = ["all", "any", "none", "while", "fires", "performs"] as const;
  return gates.filter((gate: Gate) => derived.every(key => gate[key] === undefined)).map(({ id }) => id);
}

/** Returns the ids of the gates that a move reads: those it needs, those that keep it from happening, and those they derive from. */
function gatesRead({ gates = [] }: Kit, { needs = [], bans = [] }: Move): ReadonlySet<string> {
  const read = new Set([...needs.map(({ gate }) => gate), ...bans]);
  // A set that grows is gone through to its end.
  for (const id of read) {
    const { all = [], any = [], none = [] } = gates.find(gate => gate.id === id) ?? {};
    for (const source of [...all, ...any, ...none]) read.add(source);
  }
  return read;
}

/** Returns the patterns whose presses can show a number: its own, or those of the moves and prompts that it is about. */
function patternsOf(kit: Kit, { path: [list, index] }: KitNumber): string[] {
  const rule = readAt(kit, [list!, index!]);
  if (list === "patterns") return [kit.patterns[Number(index)]!.id];
  if (list === "moves") {
    const own = rule as Move;
    const others = (kit.moves ?? []).filter(move => listFollows(kit, move, own).length > 0);
    return [own.pattern, ...others.map(move => move.pattern)];
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
  const idle = toTake(kit, "idle", "Idle", { script: [], gates: openGates(kit, LEAD, MAX_FRAMES) });
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

/** Returns the changes of a gate that is open from a frame until another. */
const openBetween = (from: number, to: number): [number, 0 | 1][] => [
  [from, 1],
  [to, 0],
];

/** Paints every paintable gate open, in all frames or from one until another. */
function openGates(kit: Kit, from = 0, to = Infinity): Changes {
  const lane: [number, 0 | 1][] = to === Infinity ? [[from, 1]] : openBetween(from, to);
  return Object.fromEntries(paintable(kit).map(id => [id, lane]));
}

/** Paints open only the gates that some moves need, derived ones too; all but one gate. */
function neededGates({ gates = [] }: Kit, moves: readonly Move[], except = ""): Changes {
  const needed = new Set(moves.flatMap(({ needs = [] }) => needs.map(({ gate }) => gate)));
  return Object.fromEntries(
    gates.flatMap(({ id }) => (needed.has(id) && id !== except ? [[id, [[0, 1]]]] : [])),
  );
}

/** Yields a script alone, with presses of other lengths, and several times in a row. */
function* repeatScript(kit: Kit, pattern: string, plain: Script, near: readonly number[]): Generator<Input> {
  const script = shiftScript(plain, LEAD);
  const own = kit.moves?.filter(move => move.pattern === pattern) ?? [];
  const needed = neededGates(kit, own);
  const settings = [openGates(kit), {}, ...(Object.keys(needed).length > 0 ? [needed] : [])];
  for (const gates of settings) yield { script, gates };
  for (const longer of near)
    if (longer > 0)
      yield { script: script.map(press => ({ ...press, to: press.from + longer })), gates: settings[0]! };
  for (const gates of settings)
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
  const open = openGates(kit);
  for (const gate of paintable(kit))
    for (const at of anchors)
      for (const by of near.filter(frames => frames >= 0)) {
        yield { script, gates: { ...open, [gate]: openBetween(0, Math.max(1, at - by)) } };
        yield { script, gates: { ...open, [gate]: openBetween(at + by, at + by + TAIL) } };
        yield { script, gates: { ...open, [gate]: openBetween(at + 1, at + by + 2) } };
      }
}

/** Returns the frames on which a pattern fires, or a move is performed, under an input. */
function framesOf(program: KitProgram, kind: "fired" | "performed", id: string, take: Take): number[] {
  return formatPhasedTrace(program, run(program, readTake(program, take))).events.flatMap(event =>
    event.kind === kind && event.id === id ? [event.f] : [],
  );
}

/** A move that turns a gate which another reads, and after how many frames from its performance, or from its release. */
interface Follow {
  readonly first: Move;
  readonly then: Move;
  readonly gate: string;
  readonly from: "performance" | "release";
  readonly edges: readonly number[];
}

/** Lists how one move turns gates that another reads: those it opens, its own output, and that of its busy slot. */
function listFollows(kit: Kit, first: Move, then: Move): Follow[] {
  const frames = (written = "0f") => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const read = gatesRead(kit, then);
  const { startup, active, recovery } = first.frames ?? {};
  const busy = frames(startup) + frames(active) + frames(recovery);
  const turned: readonly (readonly [gate: string, from: Follow["from"], edges: readonly number[]])[] = [
    ...(first.opens ?? []).map(
      ({ gate, from, to }) => [gate, "performance", [frames(from), frames(to)]] as const,
    ),
    [outputGate(first.id), "release", [frames(first.linger)]],
    [`busy:${first.slot ?? "main"}`, "performance", [busy]],
  ];
  return turned.flatMap(([gate, from, edges]) =>
    read.has(gate) ? [{ first, then, gate, from, edges }] : [],
  );
}

/** Scripts that perform a move alone, each with the frame of its performance. */
type Performing = readonly { readonly script: Script; readonly at: number }[];
export type ScriptsOf = (move: Move) => Performing;

/** Creates the search for scripts that perform moves: two at most of each, found once. Its runs count as work. */
export function createPerforming(kit: Kit, program: KitProgram, work: Work): ScriptsOf {
  const found = new Map<Move, Performing>();
  return own => {
    const before = found.get(own);
    if (before) return before;
    const plain = listScripts(
      kit,
      kit.patterns.find(({ id }) => id === own.pattern)!,
    ).slice(0, MAX_SCRIPTS);
    const during = (kind: "fired" | "performed", id: string, settings: readonly Changes[]) =>
      plain.flatMap(script =>
        settings.flatMap(gates => {
          const take = toTake(kit, "probe", "Probe", { script, gates });
          work.left -= work.rules * take.frames;
          return work.left > 0 ? framesOf(program, kind, id, take).map(at => ({ script, at })) : [];
        }),
      );
    const performed = during("performed", own.id, [{}, neededGates(kit, [own])]);
    // A move that needs the output of another is not performed alone.
    const scripts = (performed.length > 0 ? performed : during("fired", own.pattern, [{}])).slice(0, 2);
    found.set(own, scripts);
    return scripts;
  };
}

/** Yields scripts of the moves that turn a gate which a move reads, each followed by that move's own script. */
function* followOpeners(
  kit: Kit,
  scriptsOf: ScriptsOf,
  { path: [list, index] }: KitNumber,
  near: readonly number[],
): Generator<Input> {
  if (list !== "moves") return;
  const move = kit.moves![Number(index)]!;
  const pairs = (kit.moves ?? []).flatMap(other => [
    ...listFollows(kit, other, move),
    ...listFollows(kit, move, other),
  ]);
  for (const { first, then, gate, from, edges } of pairs.slice(0, MAX_FOLLOWS))
    for (const one of scriptsOf(first))
      for (const two of scriptsOf(then)) {
        const begins = LEAD + (from === "performance" ? one.at : endOf(one.script));
        const needed = neededGates(kit, [first, then], gate);
        const isShared = one.script.some(({ control }) =>
          two.script.some(other => other.control === control),
        );
        for (const edge of edges)
          for (const by of [0, -1, 1, 2, 3, ...near.map(frame => -frame)]) {
            const at = begins + edge + by - two.at;
            if (at < 0 || (isShared && at <= LEAD + lastPress(one.script) + 2)) continue;
            const script = [...shiftScript(one.script, LEAD), ...shiftScript(two.script, at)];
            yield { script, gates: {} };
            if (Object.keys(needed).length > 0) yield { script, gates: needed };
          }
      }
}

/** Yields the scripts of a move and of another one combined so that a press of each falls on one edge: for a priority. */
function* overlayRivals(
  kit: Kit,
  program: KitProgram,
  { path: [list, index, field] }: KitNumber,
): Generator<Input> {
  if (list !== "moves" || field !== "priority") return;
  const own = kit.moves![Number(index)]!;
  const controlsOf = (move: number) => program.patterns[program.moves[move]!.pattern]!.controls;
  const ownControls = controlsOf(Number(index));
  const scriptsOf = ({ pattern }: Move) =>
    listScripts(
      kit,
      kit.patterns.find(({ id }) => id === pattern)!,
    );
  const rivals = kit.moves!.filter(
    (rival, move) =>
      rival.pattern !== own.pattern &&
      !rival.off &&
      controlsOf(move).some(control => ownControls.includes(control)),
  );
  for (const rival of rivals) {
    const needed = neededGates(kit, [own, rival]);
    for (const one of scriptsOf(own))
      for (const two of scriptsOf(rival))
        for (const both of layOver(one, two)) yield { script: shiftScript(both, LEAD), gates: needed };
  }
}

/** Yields inputs made of the boundaries of a number: presses just in time and just too late, alone and after others. */
export function* listInputs(
  kits: readonly Kit[],
  program: KitProgram,
  scriptsOf: ScriptsOf,
  number: KitNumber,
  value: number,
): Generator<Input> {
  const kit = kits[0]!;
  const near = [value - 1, value, value + 1, value + 2];
  yield* overlayRivals(kit, program, number);
  yield* followOpeners(kit, scriptsOf, number, near);
  const shown = promptFrames(kit, program, number);
  for (const id of new Set(patternsOf(kit, number)))
    for (const own of kits) {
      const pattern = own.patterns.find(item => item.id === id);
      if (!pattern || pattern.off) continue;
      for (const plain of listScripts(own, pattern).slice(0, MAX_SCRIPTS)) {
        for (const at of shown)
          for (const off of [-1, 0, 1, 2].filter(by => at + by >= lastPress(plain)))
            yield {
              script: shiftScript(plain, at + off - lastPress(plain)),
              gates: openGates(kit, LEAD, MAX_FRAMES),
            };
        yield* repeatScript(kit, id, plain, near);
        const script = shiftScript(plain, LEAD);
        const fires = framesOf(
          program,
          "fired",
          id,
          toTake(kit, "probe", "Probe", { script, gates: openGates(kit) }),
        );
        yield* turnGates(kit, script, [...new Set([lastPress(script), ...fires.slice(0, 2)])], near);
      }
    }
}

/** Makes a take of an input; `tail`: the frames after all presses and changes of gates. */
export function toTake(kit: Kit, id: string, name: string, { script, gates }: Input, tail = TAIL): Take {
  const presses = [...script].sort((a, b) => a.from - b.from);
  const changes = presses.flatMap(({ control, from, to }, k): [string, number, number][] => {
    const next = presses.slice(k + 1).find(press => press.control === control);
    return [
      [control, from, 1],
      [control, Math.min(to, (next?.from ?? Infinity) - 1), 0],
    ];
  });
  const lengths = Object.values(gates).flatMap(lane => lane.map(([x]) => x));
  const frames = Math.min(MAX_FRAMES, Math.max(endOf(script), ...lengths, 0) + tail);
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
