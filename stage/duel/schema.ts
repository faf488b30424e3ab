import * as v from "valibot";
import { duration, id, list } from "../parts";

/** A fighter and a mechanical opponent that strikes on a script. */
export const duelSchema = v.strictObject({
  kind: v.literal("duel"),
  /** The opponent's strikes, by their start; the script repeats after `every`. */
  script: list(
    v.strictObject({
      at: duration,
      does: v.picklist(["strike", "guard", "away"]),
      for: v.exactOptional(duration),
    }),
  ),
  every: duration,
  strike: v.strictObject({ startup: duration, active: duration, recovery: duration }),
  /** How long a hit stuns the fighter, and how long the game stops at a hit. */
  stun: duration,
  hitStop: duration,
  /** How long a guard that was hit cannot end; no time if absent. */
  guardStun: v.exactOptional(duration),
  /** How long the gates of the fighter's own blows stay open; 12 frames if absent. */
  outcome: v.exactOptional(duration),
  gates: v.strictObject({
    /** The opponent's strike: it hit the fighter, or was parried. */
    hit: v.exactOptional(id),
    blocked: v.exactOptional(id),
    /** The fighter's own blow: it hit, was guarded, or found nobody. */
    ownHit: v.exactOptional(id),
    ownBlocked: v.exactOptional(id),
    ownMissed: v.exactOptional(id),
  }),
});

export type DuelDocument = v.InferOutput<typeof duelSchema>;
