import type { Kit } from "./schema";

type Listed = "controls" | "sticks" | "gates" | "patterns" | "moves" | "modes" | "prompts";

/** The name people know something of a kit by: its own, or its id where it has none or is not there. */
export function nameOf(kit: Kit, list: Listed, id: string): string {
  return kit[list]?.find(item => item.id === id)?.name || id;
}

/** A gate by its name; the gate of a slot's timeline by what it means. */
export function gateName(kit: Kit, id: string): string {
  const slot = /^busy:(.*)$/s.exec(id)?.[1];
  if (slot === undefined || kit.gates?.some(gate => gate.id === id)) return nameOf(kit, "gates", id);
  return slot === "main" ? "Busy" : `Busy in ${slot}`;
}
