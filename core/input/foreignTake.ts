import type { Kit } from "../kit/schema";
import type { Take } from "./takeSchema";

/** The number of controls named before the sentence shortens the rest. */
const MAX_CONTROLS_NAMED = 12;

/**
 * Returns a sentence on the controls that a take recorded for another kit has and this kit lacks; undefined
 * if the take is for this kit or names none.
 */
export function foreignWords(take: Take, kit: Kit): string | undefined {
  if (take.kit === undefined || take.kit === kit.id) return undefined;
  const strange = Object.keys(take.lanes)
    .filter(id => !kit.controls.some(control => control.id === id))
    .sort();
  const lacking =
    strange.length === 0
      ? "its controls are all here"
      : `${kit.id} has no ${strange.slice(0, MAX_CONTROLS_NAMED).join(", ")}: no rule sees those presses`;
  return `was recorded for ${take.kit}; ${lacking}`;
}
