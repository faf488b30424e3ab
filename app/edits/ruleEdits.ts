import { deleteAt, outputGate, readAt, writeAt, type Kit, type PathStep } from "#core";
import { freshId, freshName } from "./freshId";

/** The lists of a kit whose items are rules with a sentence. */
export const RULE_LISTS = ["patterns", "moves", "gates", "prompts", "switches"] as const;
export type RuleList = (typeof RULE_LISTS)[number];

/** The position of a rule in a kit. */
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

/** Returns the rule at a position. */
export function ruleAt(kit: Kit, { list, index }: RulePlace): AnyRule | undefined {
  return rulesOf(kit, list)[index];
}

/**
 * Returns a kit with a copy of a rule right after it, with a unique id and name; the same kit for a switch,
 * which has neither.
 */
export function duplicateRule(kit: Kit, { list, index }: RulePlace): Kit {
  const rules = rulesOf(kit, list);
  const rule = rules[index];
  if (!rule || list === "switches") return kit;
  const names = new Set(rules.map(item => item.name));
  const copy = {
    ...rule,
    id: freshId(rule.id, new Set(rules.map(item => item.id))),
    name: freshName(rule.name, names),
  };
  return { ...kit, [list]: [...rules.slice(0, index + 1), copy, ...rules.slice(index + 1)] };
}

/** Returns a kit with a rule moved up or down in its list; the same kit at either end. */
export function moveRule(kit: Kit, { list, index }: RulePlace, by: 1 | -1): Kit {
  const rules = [...rulesOf(kit, list)];
  const to = index + by;
  if (!rules[index] || !rules[to]) return kit;
  rules.splice(to, 0, ...rules.splice(index, 1));
  return { ...kit, [list]: rules };
}

/** Returns a kit with a rule disabled, or enabled again. Gates and switches cannot be disabled. */
export function turnRule(kit: Kit, { list, index }: RulePlace): Kit {
  const path = [list, index, "off"];
  return readAt(kit, path) === true ? deleteAt(kit, path) : writeAt(kit, path, true);
}

/** Returns a kit without a rule. Rules that depend on it remain, and become faults. */
export function removeRule(kit: Kit, { list, index }: RulePlace): Kit {
  const left = rulesOf(kit, list).filter((_, i) => i !== index);
  if (left.length === 0 && list !== "patterns") return deleteAt(kit, [list]);
  return { ...kit, [list]: left };
}

/** Fields that contain ids of rules, by the list of those rules. */
export const NAMING_FIELDS: Readonly<
  Record<"patterns" | "moves" | "gates" | "prompts", ReadonlySet<string>>
> = {
  patterns: new Set(["pattern", "ask", "while", "fires"]),
  moves: new Set(["move", "performs"]),
  gates: new Set(["gate", "bans", "spends", "refill", "all", "any", "none", "mirrorWhen", "opens", "until"]),
  prompts: new Set(["prompt"]),
};

/** Returns every string in these fields of a value, at any depth and in lists too. */
export function idsUnder(value: unknown, fields: ReadonlySet<string>, field = ""): string[] {
  if (typeof value === "string") return fields.has(field) ? [value] : [];
  if (Array.isArray(value)) return value.flatMap(item => idsUnder(item, fields, field));
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([key, item]) => idsUnder(item, fields, key));
}

/** Returns a test of whether a part of a kit refers to a rule, by its id or by the output gate of a move. */
function leansOn({ id }: AnyRule, list: keyof typeof NAMING_FIELDS): (item: unknown) => boolean {
  const fields = NAMING_FIELDS[list];
  return item =>
    idsUnder(item, fields).includes(id) ||
    (list === "moves" && idsUnder(item, NAMING_FIELDS.gates).includes(outputGate(id)));
}

/** Returns the rules that refer to a rule. */
export function listLeaningRules(kit: Kit, place: RulePlace): RulePlace[] {
  const rule = ruleAt(kit, place);
  if (!rule || place.list === "switches") return [];
  const leans = leansOn(rule, place.list);
  return RULE_LISTS.flatMap(list =>
    rulesOf(kit, list).flatMap((item, index) => (item !== rule && leans(item) ? [{ list, index }] : [])),
  );
}

/** Returns the names of everything that refers to a rule and would have a fault without it. */
export function listLeaning(kit: Kit, place: RulePlace): string[] {
  const rule = ruleAt(kit, place);
  if (!rule || place.list === "switches") return [];
  const sticks = (kit.sticks ?? []).filter(leansOn(rule, place.list));
  const leaning = listLeaningRules(kit, place);
  const named = leaning.filter(({ list }) => list !== "switches").map(item => ruleAt(kit, item)!);
  const switches = leaning.length - named.length;
  return [
    ...[...sticks, ...named].map(item => item.name),
    ...(switches > 0 ? [`${switches} switch${switches > 1 ? "es" : ""} of modes`] : []),
  ];
}

/** Returns the key of a rule in the address: its kind and id. */
export function keyOfRule(kit: Kit, place: RulePlace): string {
  const kind = place.list === "switches" ? "switch" : place.list.slice(0, -1);
  return `${kind}:${place.list === "switches" ? place.index : (ruleAt(kit, place)?.id ?? "")}`;
}

/** Returns a rule's path in the kit. */
export function pathOfRule({ list, index }: RulePlace): readonly PathStep[] {
  return [list, index];
}
