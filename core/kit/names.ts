import { arrowOf } from "../input/directions";
import type { Kit } from "./schema";
import type { RefList } from "./sentence";

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

/** The words of the directions by digit, 1 to 9, arranged as on a number pad. */
const DIRECTIONS = [
  "",
  "down-left",
  "down",
  "down-right",
  "left",
  "centre",
  "right",
  "up-left",
  "up",
  "up-right",
];

/**
 * Returns the display name of a direction, which is written as stick and digit: "way:2" is "down ↓". The name of the stick
 * comes before it if the kit has several. A direction that does not exist is returned as it is written.
 */
export function directionName(kit: Kit, written: string): string {
  const colon = written.lastIndexOf(":");
  const digit = Number(written.slice(colon + 1));
  const stick = namesBy(kit.sticks)?.get(written.slice(0, colon));
  if (stick === undefined || !DIRECTIONS[digit]) return written;
  return `${kit.sticks!.length > 1 ? `${stick} ` : ""}${DIRECTIONS[digit]} ${arrowOf(digit)}`;
}

/** Returns the function that gives the display name of each reference in the sentences of a kit. */
export function nameIn(kit: Kit): (list: RefList, id: string) => string {
  return (list, id) => {
    if (list === "direction") return directionName(kit, id);
    return list === "gate" || list === "openable" ? gateName(kit, id) : nameOf(kit, `${list}s`, id);
  };
}
