import {
  firstNoteAfter,
  type Kit,
  notes,
  parseFrames,
  PARTS,
  readTake,
  type Rounding,
  type Take,
  type Trace,
  traitsOf,
} from "#core";
import { compileRules, type Rules } from "../rules";
import { stageOf } from "../stage";
import { runRules } from "../staging";
import { stageKind } from "../kinds";
import { JACK_STATES } from "./duel";

/**
 * The frames by which the fighter can act before the opponent after a blow; negative if later. Real frames,
 * including hit stop.
 */
export interface Advantage {
  /** After a blow that hit a waiting opponent. */
  readonly onHit: number;
  /** After a blow on a guard that would end on the frame after the contact; its stun may hold it for longer. */
  readonly onGuard: number;
  /** After a blow that found nobody, from its first active frame on. */
  readonly onMiss: number;
}

/** One action of the opponent, from the first frame on for so many frames. */
type OpponentDoes = { readonly does: "guard" | "away"; readonly frames: number } | "waits";

const BEFORE = 5;
const AFTER = 600;

/**
 * Returns a press and release of every control that fires a pattern; undefined for kinds that need more than
 * a press.
 */
function pressesFor(kit: Kit, patternId: string): Take["lanes"] | undefined {
  const pattern = kit.patterns.find(item => item.id === patternId);
  if (!pattern || pattern.off) return undefined;
  const lengthOf = (written: string, rounding: Rounding) => parseFrames(written, kit.rate, rounding) ?? 0;
  const { pressFrames, playedOn } = traitsOf(pattern.kind);
  if (!pressFrames) return undefined;
  const frames = pressFrames(pattern, lengthOf);
  const press: [number, number][] = [
    [BEFORE, 1],
    [BEFORE + frames, 0],
  ];
  return Object.fromEntries(playedOn(pattern, kit).map(control => [control, press]));
}

/** Returns the kit with its opponent doing one thing only, and with nothing that prevents the move. */
function standing(kit: Kit, move: number, does: OpponentDoes): Rules | undefined {
  const stage = stageOf(kit);
  if (stage?.kind !== "duel") return undefined;
  const script = does === "waits" ? [] : [{ at: "1f", does: does.does, for: `${does.frames}f` }];
  const alone = (kit.moves ?? []).map((item, m) => (m === move ? item : { ...item, off: true }));
  const compiled = compileRules({
    ...kit,
    moves: alone,
    stage: { ...stage, script, every: `${9 * AFTER}f` },
  });
  return compiled.ok ? compiled.value : undefined;
}

/**
 * Returns the frame on which the timeline of a move that began on a frame ends; undefined if it does not end.
 */
function freeAfter(trace: Trace, move: number, began: number): number | undefined {
  for (let i = firstNoteAfter(trace, began - 1); i < trace.count; i++)
    if (
      trace.kind[i] === notes.part.code &&
      trace.subject[i] === move &&
      PARTS[notes.part.part(trace, i)] === "none"
    )
      return trace.frame[i];
  return undefined;
}

/**
 * Runs one blow against a stationary opponent: the frame of its performance, and the frames on which each can
 * act again.
 */
function tryBlow(kit: Kit, move: number, does: OpponentDoes) {
  const rules = standing(kit, move, does);
  const lanes = pressesFor(kit, kit.moves?.[move]?.pattern ?? "");
  if (!rules || !lanes) return undefined;
  const needed = [...new Set((kit.moves![move]!.needs ?? []).map(({ gate }) => gate))];
  const gates = Object.fromEntries(needed.map(id => [id, [[0, 1]] as [number, 0 | 1][]]));
  const take = {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: kit.rate,
    frames: AFTER,
    lanes,
    gates,
  } as const;
  const { trace, track } = runRules(rules, readTake(rules.program, take));
  const place = rules.program.moves.findIndex(item => item.id === kit.moves![move]!.id);
  const { startupTicks, activeTicks, recoveryTicks } = rules.program.moves[place]!;
  if (startupTicks + activeTicks + recoveryTicks === 0) return undefined;
  let began = -1;
  for (let i = 0; i < trace.count && began < 0; i++)
    if (trace.kind[i] === notes.performed.code && trace.subject[i] === place) began = trace.frame[i]!;
  const free = began < 0 ? undefined : freeAfter(trace, place, began);
  return free === undefined ? undefined : { began, free, track };
}

/**
 * Finds the advantage of a striking move on hit and on guard, by running the rules against an opponent that
 * waits and one that guards. Returns undefined for moves that do not strike, have no timeline, do not land,
 * or need more than presses.
 */
export function findAdvantage(kit: Kit, move: number): Advantage | undefined {
  const stride = stageKind("duel").trackStride;
  const hit = tryBlow(kit, move, "waits");
  const missed = tryBlow(kit, move, { does: "away", frames: 2 * AFTER });
  if (!hit || !missed) return undefined;
  const at = (track: Float32Array, frame: number, k: number) => track[frame * stride + k] ?? 0;
  let landed = hit.began;
  while (landed < AFTER && at(hit.track, landed, 2) === 0) landed++;
  // A guard from frame 1 for so many frames ends on the frame after the contact, if nothing holds it.
  const guarded = tryBlow(kit, move, { does: "guard", frames: landed });
  if (landed >= AFTER || !guarded) return undefined;
  /** Returns the first frame from the contact on, on which the opponent does something else. */
  const freeFrom = (track: Float32Array, does: (typeof JACK_STATES)[number]) => {
    let frame = landed;
    while (frame < AFTER && JACK_STATES[at(track, frame, 0)] === does) frame++;
    return frame;
  };
  const [freeHit, freeGuard] = [freeFrom(hit.track, "reels"), freeFrom(guarded.track, "guard")];
  if (freeHit >= AFTER || freeGuard >= AFTER) return undefined;
  return {
    onHit: freeHit - hit.free,
    onGuard: freeGuard - guarded.free,
    onMiss: landed + 1 - missed.free,
  };
}

/** Formats an advantage: "+4f", "−12f", "even". */
export function formatAdvantage(frames: number): string {
  return frames === 0 ? "even" : `${frames > 0 ? "+" : "−"}${Math.abs(frames)}f`;
}
