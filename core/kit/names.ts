import type { Kit } from "./schema";

type Listed = "controls" | "sticks" | "gates" | "patterns" | "moves" | "modes" | "prompts";

/** Returns the display name of an item of a kit: its name, or its id if it has none or does not exist. */
export function nameOf(kit: Kit, list: Listed, id: string): string {
  return kit[list]?.find(item => item.id === id)?.name || id;
}

/** Returns the display name of a gate; a busy gate is named by its meaning. */
export function gateName(kit: Kit, id: string): string {
  const slot = /^busy:(.*)$/s.exec(id)?.[1];
  if (slot === undefined || kit.gates?.some(gate => gate.id === id)) return nameOf(kit, "gates", id);
  return slot === "main" ? "Busy" : `Busy in ${slot}`;
}
