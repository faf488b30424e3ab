import type { Kit, Take } from "#core";

/** The length of an empty take, in seconds. */
export const SHEET_SECONDS = 5;

/** Returns an empty take to paint on, `seconds` long at the kit's rate. */
export function cleanSheet(kit: Kit, seconds: number, id: string, name = "Empty take"): Take {
  const frames = Math.round(seconds * kit.rate);
  return { format: "moss-tap/take", version: 1, id, name, kit: kit.id, rate: kit.rate, frames, lanes: {} };
}
