import type { Kit } from "#core";
import { idsUnder, listLeaningRules, NAMING_FIELDS, ruleAt, type RulePlace } from "../../edits/ruleEdits";
import { keyOfRow, type TapeGroup } from "./tapeRows";

/** The fields of a rule that name something with a row of its own, by the group of that row. */
const NAMING: readonly (readonly [TapeGroup, ReadonlySet<string>])[] = [
  [
    "controls",
    new Set(["control", "controls", "press", "release", "hold", "together", "cancel", "captures"]),
  ],
  ["gates", NAMING_FIELDS.gates],
  ["patterns", NAMING_FIELDS.patterns],
  ["moves", NAMING_FIELDS.moves],
  ["prompts", NAMING_FIELDS.prompts],
];

const DIRECTIONS = new Set(["dir"]);

/** Returns the keys of the rows a rule names. A stick contributes its four controls. */
function rowsNamed(rule: unknown): string[] {
  const sticks = idsUnder(rule, DIRECTIONS).map(dir => dir.slice(0, dir.lastIndexOf(":")));
  return [
    ...NAMING.flatMap(([group, fields]) => idsUnder(rule, fields).map(id => keyOfRow({ group, id }))),
    ...sticks.map(id => keyOfRow({ group: "controls", id })),
  ];
}

/** Returns the key of a rule's own row, as a list; empty for a switch, which has no row. */
export function rowsOfRule(kit: Kit, place: RulePlace): string[] {
  const rule = ruleAt(kit, place);
  return rule && place.list !== "switches" ? [keyOfRow({ group: place.list, id: rule.id })] : [];
}

/**
 * Returns the keys of the rows related to a rule: its own, those of rules that refer to it, of everything it
 * names and of the controls of the patterns among these; for a pattern also the patterns on the same control,
 * for a move those that answer the same pattern or open its gates.
 */
export function rowsAbout(kit: Kit, place: RulePlace): ReadonlySet<string> {
  const leaning = listLeaningRules(kit, place).flatMap(other => rowsOfRule(kit, other));
  const about = new Set([...rowsOfRule(kit, place), ...leaning, ...rowsNamed(ruleAt(kit, place))]);
  for (const pattern of kit.patterns) {
    if (!about.has(`patterns:${pattern.id}`)) continue;
    for (const key of rowsNamed(pattern)) about.add(key);
  }
  // Patterns on one control share its presses, so a tap and a hold are shown together.
  const own = place.list === "patterns" ? kit.patterns[place.index] : undefined;
  if (own && "control" in own) {
    const alike = kit.patterns.filter(pattern => "control" in pattern && pattern.control === own.control);
    for (const pattern of alike) about.add(`patterns:${pattern.id}`);
  }
  const pattern = place.list === "moves" ? kit.moves?.[place.index]?.pattern : undefined;
  for (const move of kit.moves ?? []) {
    const isOpener = (move.opens ?? []).some(window => about.has(`gates:${window.gate}`));
    if (isOpener || move.pattern === pattern) about.add(`moves:${move.id}`);
  }
  return about;
}
