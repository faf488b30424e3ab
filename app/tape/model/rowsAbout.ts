import type { Kit } from "#core";
import { directionsIn, referencesOf, stickOf } from "../../edits/references";
import { listLeaningRules, ruleAt, type RulePlace } from "../../edits/ruleEdits";
import { keyOfRow } from "./tapeRows";

/** The groups of rows whose ids rules refer to. */
const GROUPS = ["controls", "gates", "patterns", "moves", "prompts"] as const;

/** Returns the keys of the rows a rule names; the output of a move is on the row of that move. */
function rowsNamed(rule: unknown): string[] {
  const references = referencesOf(rule);
  const sticks = directionsIn(rule).map(direction => keyOfRow({ group: "controls", id: stickOf(direction) }));
  return [...GROUPS.flatMap(group => references[group].map(id => keyOfRow({ group, id }))), ...sticks];
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
