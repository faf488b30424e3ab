import { parseFrames, TICKS, type Program } from "#core";
import * as v from "valibot";
import type { EffectKind } from "../kind";
import { duration, positive } from "../parts";

/** The effects of moves on the opponent. */
export const DUEL_EFFECTS = {
  strike: {
    schema: v.strictObject({ strike: positive }),
    label: "strikes",
    hint: "lands after its startup, while it is active",
    begins: { strike: 5 },
    amount: { field: "strike", before: "with force", after: "", least: 0, most: 1000 },
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

/** A move's effect on the opponent, in frames of the kit. */
export type Blow =
  | { readonly does: "strike"; readonly force: number; readonly startup: number; readonly active: number }
  | { readonly does: "parry"; readonly frames: number };

/** Compiles the effect of a move; undefined for effects the duel does not know. */
export function compileBlow(
  effect: Readonly<Record<string, unknown>> | undefined,
  move: Program["moves"][number],
  rateHz: number,
): Blow | undefined {
  if (effect && DUEL_EFFECTS.strike.isThis(effect)) {
    const { startupTicks, activeTicks } = move;
    const active = Math.max(1, activeTicks / TICKS);
    return { does: "strike", force: Number(effect.strike), startup: startupTicks / TICKS, active };
  }
  if (!effect || !DUEL_EFFECTS.parry.isThis(effect)) return undefined;
  return { does: "parry", frames: parseFrames(String(effect.parry), rateHz, "atLeast") ?? 0 };
}
