import { groupLanes } from "../input/groupLanes";
import type { Kit, Move } from "../kit/schema";
import { compile } from "../kit/compile";
import type { Take } from "../input/takeSchema";
import { evaluate } from "../run/run";
import { notes } from "../trace/noteKinds";
import type { Trace } from "../trace/trace";
import { TICKS } from "../time/clock";
import { parseFrames } from "../time/duration";
import type { Program } from "../program/program";
import { listScripts, shiftScript, type Script } from "./overlaps/scripts";

/**
 * The frames on which one move can follow another, found by trying every frame. Frames count from the first
 * move's performance.
 */
export interface FollowUp {
  /** The first and the last press frame that leads to a performance of the second. */
  readonly earliestPress: number;
  readonly latestPress: number;
  /** The first and the last frame of such a performance. */
  readonly earliest: number;
  readonly latest: number;
  /** Frames by which the earliest precedes the end of the first's timeline; negative if it follows it. */
  readonly gain: number;
}

const BEFORE = 5;
/** The longest search for a follow-up, in frames after the first move. */
const LONGEST = 300;

function framesOf(trace: Trace, move: number): number[] {
  const frames: number[] = [];
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === notes.performed.code && trace.subject[i] === move) frames.push(trace.frame[i]!);
  return frames;
}

function totalFrames(program: Program, move: number): number {
  const { startupTicks, activeTicks, recoveryTicks } = program.moves[move]!;
  return Math.ceil((startupTicks + activeTicks + recoveryTicks) / TICKS);
}

/** Returns the pairs of moves, by index, in which the first opens a gate that the second needs. */
export function listLinks(kit: Kit): (readonly [first: number, second: number])[] {
  const moves = kit.moves ?? [];
  const needing = new Map<string, number[]>();
  moves.forEach((move, m) => {
    if (move.off) return;
    for (const { gate } of move.needs ?? []) {
      const list = needing.get(gate);
      if (list) list.push(m);
      else needing.set(gate, [m]);
    }
  });
  return moves.flatMap((one, first) => {
    if (one.off) return [];
    const seconds = new Set((one.opens ?? []).flatMap(({ gate }) => needing.get(gate) ?? []));
    return [...seconds].sort((a, b) => a - b).map(second => [first, second] as const);
  });
}

/** An input that performs a move alone: its presses, the frame of its last press, and of the performance. */
interface Cue {
  readonly script: Script;
  readonly lastPress: number;
  readonly performed: number;
}

const lastPressOf = (script: Script) => script.reduce((last, { from }) => Math.max(last, from), 0);
const endOf = (script: Script) => script.reduce((last, { to }) => Math.max(last, to), 0);

/**
 * Returns whether two scripts press one control at the same time, or so close that no edge separates them.
 */
function collide(a: Script, b: Script): boolean {
  return a.some(one =>
    b.some(two => one.control === two.control && one.from <= two.to && two.from <= one.to),
  );
}

function toTake(kit: Kit, script: Script, gates: Take["gates"], frames: number): Take {
  const presses = [...script].sort((a, b) => a.from - b.from);
  const lanes = groupLanes(
    presses.flatMap(({ control, from, to }): [string, number, number][] => [
      [control, from, 1],
      [control, to, 0],
    ]),
  );
  const base = { format: "moss-tap/take", version: 1, id: "t", name: "Tried", rate: kit.rate } as const;
  return { ...base, frames, lanes, ...(gates ? { gates } : {}) };
}

/** Returns the listed gates that some moves need. */
function neededGates(program: Program, moves: readonly Move[]): string[] {
  const needed = new Set(moves.flatMap(({ needs = [] }) => needs.map(({ gate }) => gate)));
  return program.gates.flatMap(({ id, derive, isListed }) =>
    derive === "plain" && isListed && needed.has(id) ? [id] : [],
  );
}

/**
 * Returns the inputs of a move's own pattern that perform it while its gates are open, quickest after its
 * last press first.
 */
function listCues(kit: Kit, program: Program, move: number): Cue[] {
  const { pattern: patternId } = kit.moves![move]!;
  const pattern = kit.patterns.find(({ id }) => id === patternId);
  if (!pattern || pattern.off) return [];
  const open = neededGates(program, [kit.moves![move]!]).map((id): [string, [number, 1][]] => [id, [[0, 1]]]);
  const gates = Object.fromEntries(open);
  const cues = listScripts(kit, pattern).flatMap((script): Cue[] => {
    const moved = shiftScript(script, BEFORE);
    const trace = evaluate(program, toTake(kit, moved, gates, endOf(moved) + LONGEST));
    const [performed] = framesOf(trace, move);
    return performed === undefined ? [] : [{ script: moved, lastPress: lastPressOf(moved), performed }];
  });
  const costOf = ({ performed, lastPress }: Cue) => performed - lastPress;
  return cues.sort((a, b) => costOf(a) - costOf(b) || endOf(a.script) - endOf(b.script));
}

/**
 * Finds when a move can follow another that opens a gate for it, by running the rules: the quickest input of
 * the first, then the second's input at every frame from there to some time after the first's timeline, one
 * run each. Frames count from the first's performance; a press is the last press of the second's input. Gates
 * that no move opens are held open; gates that an earlier move opens for the first are open until it is
 * performed, so that only the effect of the two moves on each other counts. Returns undefined if the second
 * never follows, or no input of the first's own pattern performs it.
 */
export function findFollowUp(kit: Kit, first: number, second: number): FollowUp | undefined {
  const compiled = compile(kit);
  const [one, two] = [kit.moves?.[first], kit.moves?.[second]];
  if (!compiled.ok || !one || !two || one.off || two.off) return undefined;
  const program = compiled.value;
  const [cue] = listCues(kit, program, first);
  const [next] = listCues(kit, program, second);
  if (!cue || !next) return undefined;
  const over = totalFrames(program, first);
  const opens = (one.opens ?? []).map(({ to }) => parseFrames(to, kit.rate, "atMost") ?? 0);
  const upTo = Math.min(LONGEST, Math.max(over, ...opens) + 20);
  const opened = new Set((kit.moves ?? []).flatMap(move => (move.opens ?? []).map(({ gate }) => gate)));
  const ownGates = new Set((one.needs ?? []).map(({ gate }) => gate));
  // A gate that another move opens for the first stays open only until the first is performed, not for the
  // second.
  const gates = groupLanes(
    neededGates(program, [one, two]).flatMap((id): [string, number, 0 | 1][] => {
      if (!opened.has(id)) return [[id, 0, 1]];
      if (!ownGates.has(id)) return [];
      return [
        [id, 0, 1],
        [id, cue.performed + 1, 0],
      ];
    }),
  );
  const tries: { readonly press: number; readonly performed: number }[] = [];
  // A motion may begin before the first is performed; its last press comes after it.
  for (let press = 1; press <= upTo; press++) {
    const moved = shiftScript(next.script, cue.performed + press - next.lastPress);
    if (moved.some(({ from }) => from < 0) || collide(cue.script, moved)) continue;
    const trace = evaluate(program, toTake(kit, [...cue.script, ...moved], gates, endOf(moved) + LONGEST));
    const [began, again = Infinity] = framesOf(trace, first);
    const came = framesOf(trace, second).find(frame => frame > cue.performed);
    // If the first move is performed again, later moves follow that performance.
    if (began === cue.performed && came !== undefined && came < again)
      tries.push({ press, performed: came - cue.performed });
  }
  if (tries.length === 0) return undefined;
  const presses = tries.map(({ press }) => press);
  const performed = tries.map(frames => frames.performed);
  const earliest = Math.min(...performed);
  return {
    earliestPress: Math.min(...presses),
    latestPress: Math.max(...presses),
    earliest,
    latest: Math.max(...performed),
    gain: over - earliest,
  };
}
