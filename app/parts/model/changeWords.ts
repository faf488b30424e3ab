import {
  describeRule,
  formatSentence,
  groupBy,
  listChanges,
  nameIn,
  nameOf,
  type Change,
  type Kit,
  type RuleList,
  type SentencePart,
} from "#core";

const RULES = ["patterns", "moves", "gates", "prompts", "switches"] as const satisfies readonly RuleList[];
const LISTS = ["controls", "sticks", "gates", "patterns", "moves", "modes", "prompts"] as const;

/** Formats a value of a kit in a few characters, beside the one that it replaces or is replaced by. */
function show(value: unknown, other: unknown): string {
  if (typeof value === "boolean" || (value === undefined && typeof other === "boolean"))
    return value ? "yes" : "no";
  if (value === undefined) return "nothing";
  if (typeof value !== "object" || value === null) return String(value);
  return Array.isArray(value) ? `a list of ${value.length}` : "something else";
}

const isAt = (part: SentencePart, path: Change["path"]) =>
  "path" in part && part.path.length === path.length && part.path.every((step, k) => step === path[k]);

/** The list and the place of the rule that a change is in; undefined for one elsewhere. */
function ruleOf({
  path: [name, place],
}: Change): { list: (typeof RULES)[number]; place: number } | undefined {
  const list = RULES.find(item => item === name);
  return list !== undefined && typeof place === "number" ? { list, place } : undefined;
}

const idOf = (item: object | undefined) => (item && "id" in item ? item.id : undefined);

/**
 * Formats the changes of one rule as its sentence, with each old value in it, or with the old sentence behind it if they are not
 * values alone. Undefined if both sentences are the same, or if there was no such rule.
 */
function formatRule(old: Kit, kit: Kit, changes: readonly Change[]): string | undefined {
  const rule = changes[0] && ruleOf(changes[0]);
  if (!rule) return undefined;
  const { list, place } = rule;
  const id = idOf(kit[list]?.[place]);
  const oldPlace = id === undefined ? place : (old[list] ?? []).findIndex(item => idOf(item) === id);
  if (!old[list]?.[oldPlace]) return undefined;
  const parts = describeRule(kit, list, place);
  const oldParts = describeRule(old, list, oldPlace);
  const text = (of: readonly SentencePart[], from = kit) => formatSentence(of, nameIn(from));
  const partOf = (of: readonly SentencePart[], { path }: Change) =>
    of.find(part => isAt(part, path.slice(2)));
  const values = changes.map(change => [partOf(parts, change), partOf(oldParts, change)] as const);
  const before = new Map(values.flatMap(([own, was]) => (own && was ? [[own, was] as const] : [])));
  if (before.size === changes.length)
    return parts
      .map(part => text([part]) + (before.has(part) ? ` (was ${text([before.get(part)!], old)})` : ""))
      .join("");
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

/** Formats a change as a list's new and missing items, or as a field with both values. */
function formatField(kit: Kit, { path, before, after }: Change): string {
  const [list, place, ...rest] = path;
  const title = String(list).replace(/^./, letter => letter.toUpperCase());
  const asList = path.length === 1 ? formatList(title, before, after) : undefined;
  if (asList !== undefined) return asList;
  const named = LISTS.find(item => item === list);
  const item = named && typeof place === "number" ? kit[named]?.[place] : undefined;
  const subject = named && item ? nameOf(kit, named, item.id) : title;
  const field = (item ? rest : path.slice(1)).join(" ");
  return `${subject}${field ? `, ${field}` : ""}: ${show(after, before)} (was ${show(before, after)})`;
}

/** Returns a change of a whole list with the changes of the items that both have; another change alone. */
function withItems(old: Kit, kit: Kit, change: Change): readonly Change[] {
  const list = change.path.length === 1 ? LISTS.find(item => item === change.path[0]) : undefined;
  if (list === undefined) return [change];
  const before = new Map((old[list] ?? []).map(item => [item.id, item]));
  const items = (kit[list] ?? []).flatMap((item, place) =>
    before.has(item.id) ? listChanges(before.get(item.id), item, [list, place]) : [],
  );
  return [change, ...items];
}

/**
 * Formats changes of a kit, one text for each rule, list or field: a rule's present sentence with its old values ("Hop on Leap, …
 * buffer 2f (was 6f)"), a list's new and missing items, or a field with both values. Items of a list that gained or lost others
 * are compared, too. The changes lead from the kit `old` to `kit`.
 */
export function formatChanges(old: Kit, kit: Kit, changes: readonly Change[]): readonly string[] {
  const byRule = groupBy(
    changes.flatMap(one => withItems(old, kit, one)),
    change => {
      const rule = ruleOf(change);
      return JSON.stringify(rule ? [rule.list, rule.place] : change.path);
    },
  );
  return [...byRule.values()].flatMap(own => {
    const asRule = formatRule(old, kit, own);
    return asRule === undefined ? own.map(change => formatField(kit, change)) : [asRule];
  });
}
