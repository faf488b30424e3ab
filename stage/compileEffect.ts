import { parseFrames } from "#core";
import type { EffectAmount, EffectKind } from "./kind";

/** An effect of a move, as the bodies of a stage read it. `Name` is its name among the stage's effects. */
export interface CompiledEffect<Name extends string> {
  readonly does: Name;
  /** The number written in its amount field, 0 if it has none. */
  readonly amount: number;
  /** The number written in its second field, 0 if it has none. */
  readonly more: number;
  /** The duration written in its field, in frames of the kit; 0 if it has none. */
  readonly frames: number;
}

/**
 * Compiles an effect written in a kit; undefined for effects that the stage does not know.
 * `rateHz`: the kit's rate in frames per second.
 */
export function compileEffect<Name extends string>(
  kinds: Readonly<Record<Name, EffectKind>>,
  effect: Readonly<Record<string, unknown>>,
  rateHz: number,
): CompiledEffect<Name> | undefined {
  for (const [does, kind] of Object.entries<EffectKind>(kinds)) {
    if (!kind.isThis(effect)) continue;
    const numberOf = (place: EffectAmount | undefined) => (place ? Number(effect[place.field]) : 0);
    const frames = kind.lasts ? (parseFrames(String(effect[kind.lasts]), rateHz, "atLeast") ?? 0) : 0;
    return { does: does as Name, amount: numberOf(kind.amount), more: numberOf(kind.more), frames };
  }
  return undefined;
}

/** Compiles the effects of a move in their order, without those that the stage does not know. */
export function compileEffects<Name extends string>(
  kinds: Readonly<Record<Name, EffectKind>>,
  effects: readonly Readonly<Record<string, unknown>>[],
  rateHz: number,
): CompiledEffect<Name>[] {
  return effects.flatMap(effect => compileEffect(kinds, effect, rateHz) ?? []);
}
