import { nameOf, type Change, type Kit } from "#core";

/** Formats a value of a kit in a few characters. */
function show(value: unknown): string {
  if (value === undefined) return "nothing";
  if (typeof value !== "object" || value === null) return String(value);
  return Array.isArray(value) ? `a list of ${value.length}` : "something else";
}

const LISTS = ["controls", "sticks", "gates", "patterns", "moves", "modes", "prompts"] as const;

/** Formats a change of a kit: "Hop, buffer: 2f, was 6f". */
export function formatChange(kit: Kit, { path, before, after }: Change): string {
  const [list, place, ...rest] = path;
  const named = LISTS.find(item => item === list);
  const item = named && typeof place === "number" ? kit[named]?.[place] : undefined;
  const subject = named && item ? nameOf(kit, named, item.id) : String(list);
  const field = (item ? rest : path.slice(1)).join(" ");
  return `${subject}${field ? `, ${field}` : ""}: ${show(after)}, was ${show(before)}`;
}
