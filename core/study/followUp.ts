import type { Kit, Move } from "../kit/schema";
import { compile } from "../kit/compile";
import type { Take } from "../input/takeSchema";
import { evaluate } from "../run/run";
import { PERFORMED, type Trace } from "../trace/trace";
import { TICKS } from "../time/clock";
import { parseFrames } from "../time/duration";
import type { Program } from "../run/program";

/** When one move can follow another, found by trying every frame of a press. Frames since the first was performed. */
export interface FollowUp {
  /** The first and the last frame on which a press for the second comes to its performance. */
  readonly earliestPress: number;
  readonly latestPress: number;
  /** The first and the last frame on which it is performed so. */
  readonly earliest: number;
  readonly latest: number;
  /** By how many frames the earliest comes before the first's own timeline is over; less than 0 where it comes after. */
  readonly gain: number;
}

const BEFORE = 5;
const LONGEST = 300;

/** The control whose press alone fires a pattern of the kit; undefined for those that need more. */
function pressedBy(kit: Kit, patternId: string): string | undefined {
  const pattern = kit.patterns.find(item => item.id === patternId);
  return pattern?.kind === "press" && !pattern.off ? pattern.control : undefined;
}

function framesOf(trace: Trace, move: number): number[] {
  const frames: number[] = [];
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === PERFORMED && trace.subject[i] === move) frames.push(trace.frame[i]!);
  return frames;
}

function totalFrames(program: Program, move: number): number {
  const { startupTicks, activeTicks, recoveryTicks } = program.moves[move]!;
  return Math.ceil((startupTicks + activeTicks + recoveryTicks) / TICKS);
}

/** The pairs of moves of which the first opens a gate that the second needs, by their places: links of a chain. */
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

/**
 * When a move can follow another that opens a gate for it: the rules themselves are asked, the first pressed once, the
 * second on every frame from then to a while after its timeline, one run each. Gates that stand for themselves and that no
 * move opens are held open, and those that a move before opens for the first are open while it is pressed, so that only what
 * the two moves do to each other tells. Undefined: the second never follows,
 * the first is not performed so, or one of them is asked for by more than a press.
 */
export function findFollowUp(kit: Kit, first: number, second: number): FollowUp | undefined {
  const compiled = compile(kit);
  const [one, two] = [kit.moves?.[first], kit.moves?.[second]];
  if (!compiled.ok || !one || !two || one.off || two.off) return undefined;
  const program = compiled.value;
  const [pressOne, pressTwo] = [pressedBy(kit, one.pattern), pressedBy(kit, two.pattern)];
  if (pressOne === undefined || pressTwo === undefined) return undefined;
  const over = totalFrames(program, first);
  const opens = (one.opens ?? []).map(({ to }) => parseFrames(to, kit.rate, "atMost") ?? 0);
  const upTo = Math.min(LONGEST, Math.max(over, ...opens) + 20);
  const opened = new Set((kit.moves ?? []).flatMap(move => (move.opens ?? []).map(({ gate }) => gate)));
  const needsOf = (move: Move) => new Set((move.needs ?? []).map(({ gate }) => gate));
  const needed = new Set([...needsOf(one), ...needsOf(two)]);
  const gates: Record<string, [number, 0 | 1][]> = {};
  for (const { id, derive } of program.gates) {
    if (derive !== "plain" || id.startsWith("busy:") || !needed.has(id)) continue;
    if (!opened.has(id)) gates[id] = [[0, 1]];
    // What another move opens for the first is open for it, and no longer: the second must find its own way.
    else if (needsOf(one).has(id))
      gates[id] = [
        [0, 1],
        [BEFORE + 1, 0],
      ];
  }
  const takeOf = (at: number): Take => {
    const lanes: Record<string, [number, number][]> = { [pressOne]: [] };
    lanes[pressOne]!.push([BEFORE, 1], [BEFORE + 1, 0]);
    (lanes[pressTwo] ??= []).push([BEFORE + at, 1], [BEFORE + at + 1, 0]);
    const frames = BEFORE + upTo + LONGEST;
    return {
      format: "moss-tap/take",
      version: 1,
      id: "t",
      name: "Tried",
      rate: kit.rate,
      frames,
      lanes,
      gates,
    };
  };
  const tries: { readonly press: number; readonly performed: number }[] = [];
  for (let press = 2; press <= upTo; press++) {
    const trace = evaluate(program, takeOf(press));
    const began = framesOf(trace, first)[0];
    const came = began === BEFORE ? framesOf(trace, second).find(frame => frame > began) : undefined;
    if (came !== undefined) tries.push({ press, performed: came - BEFORE });
  }
  const [early] = tries;
  const late = tries.at(-1);
  if (!early || !late) return undefined;
  const earliest = Math.min(...tries.map(({ performed }) => performed));
  return {
    earliestPress: early.press,
    latestPress: late.press,
    earliest,
    latest: late.performed,
    gain: over - earliest,
  };
}
