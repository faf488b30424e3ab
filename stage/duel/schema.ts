import * as v from "valibot";
import { apart, duration, id, list, MAX_APART, positive } from "../parts";

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
  strike: v.strictObject({
    startup: duration,
    active: duration,
    recovery: duration,
    /** How far it reaches, in tiles; as far as anything can be if absent. */
    reach: v.exactOptional(apart),
  }),
  /** How long a hit stuns the fighter, and how long the game stops at a hit. */
  stun: duration,
  hitStop: duration,
  /** How long a guard that was hit cannot end; no time if absent. */
  guardStun: v.exactOptional(duration),
  /** The distance of the two, how far the fighter's blows reach, and how far a hit and a guarded blow push, in tiles. */
  apart: v.exactOptional(apart),
  reach: v.exactOptional(apart),
  push: v.exactOptional(apart),
  guardPush: v.exactOptional(apart),
  /** The speed at which the opponent comes back to that distance while it waits, in tiles per second. */
  back: v.exactOptional(positive),
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

/** The numbers in force where a stage has none of its own; distances in tiles, the speed in tiles per second. */
export const DUEL_DEFAULTS = {
  apart: 1,
  reach: MAX_APART,
  push: 0,
  guardPush: 0,
  back: 4,
  outcome: "12f",
  guardStun: "0f",
} as const;

export type DuelDocument = v.InferOutput<typeof duelSchema>;
