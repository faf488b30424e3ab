import {
  describeRule,
  formatSentence,
  nameIn,
  nameOf,
  type Change,
  type Kit,
  type RuleList,
  type SentencePart,
} from "#core";

const RULES = ["patterns", "moves", "gates", "prompts", "switches"] as const satisfies readonly RuleList[];
const LISTS = ["controls", "sticks", "gates", "patterns", "moves", "modes", "prompts"] as const;

/** Formats a value of a kit in a few characters. */
function show(value: unknown): string {
  if (value === undefined) return "nothing";
  if (typeof value !== "object" || value === null) return String(value);
  return Array.isArray(value) ? `a list of ${value.length}` : "something else";
}

const isAt = (part: SentencePart, path: Change["path"]) =>
  "path" in part && part.path.length === path.length && part.path.every((step, k) => step === path[k]);

/** Formats a changed rule as its sentence, with the old value in it, or with the old sentence behind it. */
function formatRule(old: Kit, kit: Kit, { path }: Change): string | undefined {
  const [name, place, ...rest] = path;
  const list = RULES.find(item => item === name);
  if (list === undefined || typeof place !== "number") return undefined;
  const idOf = (rule: object | undefined) => (rule && "id" in rule ? rule.id : undefined);
  const id = idOf(kit[list]?.[place]);
  const oldPlace = id === undefined ? place : (old[list] ?? []).findIndex(rule => idOf(rule) === id);
  if (!old[list]?.[oldPlace]) return undefined;
  const parts = describeRule(kit, list, place);
  const oldParts = describeRule(old, list, oldPlace);
  const own = parts.find(part => isAt(part, rest));
  const oldPart = oldParts.find(part => isAt(part, rest));
  const text = (of: readonly SentencePart[], from = kit) => formatSentence(of, nameIn(from));
  if (own && oldPart)
    return parts.map(part => text([part]) + (part === own ? ` (was ${text([oldPart], old)})` : "")).join("");
  if (text(parts) === text(oldParts, old)) return undefined;
  return `${text(parts)}. Before: ${text(oldParts, old)}`;
}

/** Formats a list with other items: "Moves: Dash is new; Hop is gone". */
function formatList(list: string, before: unknown, after: unknown): string | undefined {
  if (!Array.isArray(before ?? []) || !Array.isArray(after ?? [])) return undefined;
  const named = (items: unknown) =>
    new Map(
      ((items ?? []) as readonly { readonly id?: string; readonly name?: string }[]).flatMap(item =>
        item?.id === undefined ? [] : [[item.id, item.name || item.id] as const],
      ),
    );
  const [old, now] = [named(before), named(after)];
  const words = [
    ...[...now].flatMap(([id, name]) => (old.has(id) ? [] : [`${name} is new`])),
    ...[...old].flatMap(([id, name]) => (now.has(id) ? [] : [`${name} is gone`])),
  ];
  if (words.length > 0) return `${list}: ${words.join("; ")}`;
  return now.size > 0 ? `${list}: in another order` : undefined;
}

/**
 * Formats a change of a kit: a rule's present sentence with its old value ("Hop on Leap, … buffer 2f (was 6f)"), a list's
 * new and missing items, or a field with both values. The change leads from the kit `old` to `kit`.
 */
export function formatChange(old: Kit, kit: Kit, change: Change): string {
  const { path, before, after } = change;
  const [list, place, ...rest] = path;
  const asRule = formatRule(old, kit, change);
  if (asRule !== undefined) return asRule;
  const title = String(list).replace(/^./, letter => letter.toUpperCase());
  const asList = path.length === 1 ? formatList(title, before, after) : undefined;
  if (asList !== undefined) return asList;
  const named = LISTS.find(item => item === list);
  const item = named && typeof place === "number" ? kit[named]?.[place] : undefined;
  const subject = named && item ? nameOf(kit, named, item.id) : title;
  const field = (item ? rest : path.slice(1)).join(" ");
  return `${subject}${field ? `, ${field}` : ""}: ${show(after)} (was ${show(before)})`;
}
