import type { Kit } from "#core";

/** Returns a kit with another name. */
export function renameKit(kit: Kit, name: string): Kit {
  return { ...kit, name };
}

/** Returns a kit without one item of a list; the field is removed with the last item. */
export function removeAt<F extends "sticks" | "gates" | "moves" | "modes" | "switches" | "prompts">(
  kit: Kit,
  field: F,
  at: number,
): Kit {
  const left = (kit[field] ?? []).filter((_, k) => k !== at);
  if (left.length > 0) return { ...kit, [field]: left };
  const { [field]: gone, ...rest } = kit;
  return rest as Kit;
}
