import { firstNoteAfter, notes, PARTS, type Kit, type Trace } from "#core";
import { createTrials, duelOf, TRIAL_FRAMES as AFTER, type OpponentDoes, type Trials } from "./blows";
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
function tryBlow(trials: Trials, move: number, does: OpponentDoes) {
  const trial = trials.prepare(move, does);
  if (!trial) return undefined;
  const { rules, columns, move: place } = trial;
  const { trace, track } = runRules(rules, columns);
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
 * or are performed by no input made for their patterns. `trials` are those of the kit, which several moves share.
 */
export function findAdvantage(
  kit: Kit,
  move: number,
  trials: Trials = createTrials(kit),
): Advantage | undefined {
  if (!duelOf(kit)) return undefined;
  const stride = stageKind("duel").trackStride;
  const hit = tryBlow(trials, move, "waits");
  const missed = tryBlow(trials, move, { does: "away", frames: 2 * AFTER });
  if (!hit || !missed) return undefined;
  const at = (track: Float32Array, frame: number, k: number) => track[frame * stride + k] ?? 0;
  let landed = hit.began;
  while (landed < AFTER && at(hit.track, landed, 2) === 0) landed++;
  // A guard of that length from frame 1 ends on the frame after the contact, if nothing holds it.
  const guarded = tryBlow(trials, move, { does: "guard", frames: landed });
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
