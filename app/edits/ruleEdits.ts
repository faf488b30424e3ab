import { deleteAt, readAt, writeAt, type Kit, type PathStep } from "#core";
import { freshId } from "./edits";

/** The lists of a kit whose items are rules with a sentence. */
export const RULE_LISTS = ["patterns", "moves", "gates", "prompts", "switches"] as const;
export type RuleList = (typeof RULE_LISTS)[number];

/** A rule by where it stands. */
export interface RulePlace {
  readonly list: RuleList;
  readonly index: number;
}

interface AnyRule {
  readonly id: string;
  readonly name: string;
  readonly off?: boolean;
}

function rulesOf(kit: Kit, list: RuleList): readonly AnyRule[] {
  return (kit[list] ?? []) as readonly unknown[] as readonly AnyRule[];
}

/** The rule that stands at a place. */
export function ruleAt(kit: Kit, { list, index }: RulePlace): AnyRule | undefined {
  return rulesOf(kit, list)[index];
}

/** A copy of a rule right under it, with an id and a name of its own; the same kit for a switch, which has neither. */
export function duplicateRule(kit: Kit, { list, index }: RulePlace): Kit {
  const rules = rulesOf(kit, list);
  const rule = rules[index];
  if (!rule || list === "switches") return kit;
  const names = new Set(rules.map(item => item.name));
  let n = 2;
  while (names.has(`${rule.name} ${n}`)) n++;
  const copy = {
    ...rule,
    id: freshId(rule.id, new Set(rules.map(item => item.id))),
    name: `${rule.name} ${n}`,
  };
  return { ...kit, [list]: [...rules.slice(0, index + 1), copy, ...rules.slice(index + 1)] };
}

/** A rule moved up or down in its list; the same kit where it can go no farther. */
export function moveRule(kit: Kit, { list, index }: RulePlace, by: 1 | -1): Kit {
  const rules = [...rulesOf(kit, list)];
  const to = index + by;
  if (!rules[index] || !rules[to]) return kit;
  rules.splice(to, 0, ...rules.splice(index, 1));
  return { ...kit, [list]: rules };
}

/** A rule switched off, as if absent, or on again. Gates and switches cannot be switched off. */
export function turnRule(kit: Kit, { list, index }: RulePlace): Kit {
  const path = [list, index, "off"];
  return readAt(kit, path) === true ? deleteAt(kit, path) : writeAt(kit, path, true);
}

/** A kit without a rule. What leans on it is left, and the core says so. */
export function removeRule(kit: Kit, { list, index }: RulePlace): Kit {
  const left = rulesOf(kit, list).filter((_, i) => i !== index);
  if (left.length === 0 && list !== "patterns") return deleteAt(kit, [list]);
  return { ...kit, [list]: left };
}

/** Fields that hold ids of rules, by the list those rules stand in. */
export const NAMING_FIELDS: Readonly<
  Record<"patterns" | "moves" | "gates" | "prompts", ReadonlySet<string>>
> = {
  patterns: new Set(["pattern", "ask", "while", "fires"]),
  moves: new Set(["move", "performs"]),
  gates: new Set(["gate", "bans", "spends", "refill", "all", "any", "none", "mirrorWhen", "opens", "until"]),
  prompts: new Set(["prompt"]),
};

/** Every string that stands in one of these fields of a value, at any depth, in lists too. */
export function idsUnder(value: unknown, fields: ReadonlySet<string>, field = ""): string[] {
  if (typeof value === "string") return fields.has(field) ? [value] : [];
  if (Array.isArray(value)) return value.flatMap(item => idsUnder(item, fields, field));
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([key, item]) => idsUnder(item, fields, key));
}

/** The rules that lean on a rule: those that name it. */
export function listLeaningRules(kit: Kit, place: RulePlace): RulePlace[] {
  const rule = ruleAt(kit, place);
  if (!rule || place.list === "switches") return [];
  const fields = NAMING_FIELDS[place.list];
  return RULE_LISTS.flatMap(list =>
    rulesOf(kit, list).flatMap((item, index) =>
      item !== rule && idsUnder(item, fields).includes(rule.id) ? [{ list, index }] : [],
    ),
  );
}

/** The names of everything that leans on a rule: those that would be at fault without it. */
export function listLeaning(kit: Kit, place: RulePlace): string[] {
  const rule = ruleAt(kit, place);
  if (!rule || place.list === "switches") return [];
  const fields = NAMING_FIELDS[place.list];
  const sticks = (kit.sticks ?? []).filter(stick => idsUnder(stick, fields).includes(rule.id));
  const leaning = listLeaningRules(kit, place);
  const named = leaning.filter(({ list }) => list !== "switches").map(item => ruleAt(kit, item)!);
  const switches = leaning.length - named.length;
  return [
    ...[...sticks, ...named].map(item => item.name),
    ...(switches > 0 ? [`${switches} switch${switches > 1 ? "es" : ""} of modes`] : []),
  ];
}

/** The key by which a rule is known in the address: its kind and id. */
export function keyOfRule(kit: Kit, place: RulePlace): string {
  const kind = place.list === "switches" ? "switch" : place.list.slice(0, -1);
  return `${kind}:${place.list === "switches" ? place.index : (ruleAt(kit, place)?.id ?? "")}`;
}

/** A rule's path in the kit. */
export function pathOfRule({ list, index }: RulePlace): readonly PathStep[] {
  return [list, index];
}
