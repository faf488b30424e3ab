import { parseFrames, TICKS, type Program } from "#core";
import * as v from "valibot";
import { compileEffect, type CompiledEffect } from "../compileEffect";
import type { EffectKind } from "../kind";
import { apart, duration, MAX_APART, positive } from "../parts";

/** The effects of moves on the opponent. */
export const DUEL_EFFECTS = {
  strike: {
    schema: v.strictObject({
      strike: positive,
      stun: v.exactOptional(duration),
      guardStun: v.exactOptional(duration),
      hitStop: v.exactOptional(duration),
      reach: v.exactOptional(apart),
      push: v.exactOptional(apart),
      guardPush: v.exactOptional(apart),
    }),
    label: "strikes",
    hint: "lands after its startup, while it is active",
    begins: { strike: 5 },
    amount: { field: "strike", before: "with force", after: "", least: 0, most: 1000 },
    lengths: [
      { field: "stun", before: "It stuns for" },
      { field: "guardStun", before: ", a guard for" },
      { field: "hitStop", before: "; a hit stops the game for" },
    ],
    others: [
      { field: "reach", before: "It reaches", after: "tiles", least: 0, most: MAX_APART },
      { field: "push", before: ", pushes by", after: "tiles", least: 0, most: MAX_APART },
      { field: "guardPush", before: ", a guard by", after: "tiles", least: 0, most: MAX_APART },
    ],
    isThis: effect => "strike" in effect,
  },
  parry: {
    schema: v.strictObject({ parry: duration }),
    label: "parries",
    hint: "turns a strike away for a while",
    begins: { parry: "9f" },
    lasts: "parry",
    isThis: effect => "parry" in effect,
  },
} as const satisfies Readonly<Record<string, EffectKind>>;

/** The compiled effect of a move on the opponent, with the frames of the move's own parts. */
export interface Blow extends CompiledEffect<keyof typeof DUEL_EFFECTS> {
  readonly startup: number;
  readonly active: number;
  /** The frames for which it stuns, holds a guard, and stops the game; undefined for those of the stage. */
  readonly stun: number | undefined;
  readonly guardStun: number | undefined;
  readonly hitStop: number | undefined;
  /** How far it reaches and pushes, in tiles; undefined for those of the stage. */
  readonly reach: number | undefined;
  readonly push: number | undefined;
  readonly guardPush: number | undefined;
}

/** Compiles the effect of a move; undefined for effects the duel does not know. */
export function compileBlow(
  effect: Readonly<Record<string, unknown>>,
  { startupTicks, activeTicks }: Program["moves"][number],
  rateHz: number,
): Blow | undefined {
  const compiled = compileEffect(DUEL_EFFECTS, effect, rateHz);
  if (!compiled) return undefined;
  const frames = (field: string) =>
    typeof effect[field] === "string" ? parseFrames(effect[field], rateHz, "atLeast") : undefined;
  const tiles = (field: string) => (typeof effect[field] === "number" ? effect[field] : undefined);
  return {
    ...compiled,
    startup: startupTicks / TICKS,
    active: Math.max(1, activeTicks / TICKS),
    stun: frames("stun"),
    guardStun: frames("guardStun"),
    hitStop: frames("hitStop"),
    reach: tiles("reach"),
    push: tiles("push"),
    guardPush: tiles("guardPush"),
  };
}
