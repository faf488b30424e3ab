import type { Kit } from "./schema";

type Listed = "controls" | "sticks" | "gates" | "patterns" | "moves" | "modes" | "prompts";

type Item = { readonly id: string; readonly name: string };

/** The names of a list by id, read once for each list: a kit of a thousand rules names thousands of things. */
const namesIn = new WeakMap<readonly Item[], ReadonlyMap<string, string>>();

function namesBy(items: readonly Item[] | undefined): ReadonlyMap<string, string> | undefined {
  if (!items) return undefined;
  const known = namesIn.get(items);
  if (known) return known;
  const names = new Map<string, string>();
  for (const { id, name } of items) if (!names.has(id)) names.set(id, name);
  namesIn.set(items, names);
  return names;
}

/** Returns the display name of an item of a kit: its name, or its id if it has none or does not exist. */
export function nameOf(kit: Kit, list: Listed, id: string): string {
  return namesBy(kit[list])?.get(id) || id;
}

/** Returns the display name of a gate; those of slots and outputs are named by their meaning. */
export function gateName(kit: Kit, id: string): string {
  const slot = /^busy:(.*)$/s.exec(id)?.[1];
  const move = /^out:(.*)$/s.exec(id)?.[1];
  if (move !== undefined) return `Output of ${nameOf(kit, "moves", move)}`;
  if (slot === undefined || namesBy(kit.gates)?.has(id)) return nameOf(kit, "gates", id);
  return slot === "main" ? "Busy" : `Busy in ${slot}`;
}
