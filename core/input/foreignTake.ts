import type { Kit } from "../kit/schema";
import type { Take } from "./takeSchema";

/** So many controls are named; more say no more. */
const MOST_NAMED = 12;

/** What a take that was recorded for another kit lacks here, in words; undefined for one of this kit, or that names none. */
export function foreignWords(take: Take, kit: Kit): string | undefined {
  if (take.kit === undefined || take.kit === kit.id) return undefined;
  const strange = Object.keys(take.lanes)
    .filter(id => !kit.controls.some(control => control.id === id))
    .sort();
  const lacking =
    strange.length === 0
      ? "its controls are all here"
      : `${kit.id} has no ${strange.slice(0, MOST_NAMED).join(", ")}: those presses are not heard`;
  return `was recorded for ${take.kit}; ${lacking}`;
}
