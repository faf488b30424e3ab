import { deleteAt, writeAt, type Kit } from "#core";
import { effectsOf, stageKind, stageOf, type EffectKind } from "#stage";

/** Returns the effects that moves can have on a kit's stage, with their names; none without a stage. */
export function kindsOn(kit: Kit): readonly (readonly [name: string, kind: EffectKind])[] {
  const stage = stageOf(kit);
  return Object.entries<EffectKind>(stage ? stageKind(stage.kind).effects : {});
}

/**
 * Returns a kit in which an effect of a move is another one, with its initial numbers. `place` is its place among the move's
 * effects, or their number to add one. A name that the stage does not know takes the effect away. A single effect is written
 * as such, several as a list.
 */
export function setEffect(kit: Kit, moveIndex: number, place: number, name: string): Kit {
  const begins = kindsOn(kit).find(([id]) => id === name)?.[1].begins;
  const list = effectsOf(kit.moves?.[moveIndex]).map(({ effect }) => effect);
  const after = [...list.slice(0, place), ...(begins ? [begins] : []), ...list.slice(place + 1)];
  const path = ["moves", moveIndex, "effect"];
  if (after.length === 0) return deleteAt(kit, path);
  return writeAt(kit, path, after.length === 1 ? after[0] : after);
}
