import {
  describeRule,
  offerGate,
  offerMove,
  offerPattern,
  offerPrompt,
  formatSentence,
  nameIn,
  type Kit,
  type Offer,
} from "#core";
import { keyOfRule, type RulePlace } from "../../edits/ruleEdits";

/** A rule of the kit, as listed. */
export interface RuleItem extends RulePlace {
  readonly key: string;
  /** The control it listens to, or another heading. */
  readonly group: string;
  readonly name: string;
  readonly summary: string;
  readonly isOff: boolean;
}

/** Returns the clauses that could be added to a rule. */
export function offersOf(kit: Kit, { list, index }: RulePlace): readonly Offer[] {
  switch (list) {
    case "patterns":
      return offerPattern(kit.patterns[index]!, kit);
    case "moves":
      return offerMove(kit.moves![index]!, kit);
    case "gates":
      return offerGate(kit.gates![index]!, kit);
    case "prompts":
      return offerPrompt(kit.prompts![index]!, kit);
    case "switches":
      return [];
  }
}

const SEVERAL = "Several controls";

/** Returns the function that gives the name of the control that a pattern listens to, by its id. */
function controlsIn(kit: Kit): (patternId: string) => string {
  const patterns = new Map(kit.patterns.map(pattern => [pattern.id, pattern]));
  const names = new Map(kit.controls.map(({ id, name }) => [id, name]));
  return patternId => {
    const pattern = patterns.get(patternId);
    return (pattern && "control" in pattern && names.get(pattern.control)) || SEVERAL;
  };
}

function itemOf(kit: Kit, place: RulePlace, group: string): RuleItem {
  const parts = describeRule(kit, place.list, place.index);
  const rule = (
    kit[place.list] as readonly { readonly name?: string; readonly id?: string; readonly off?: boolean }[]
  )[place.index]!;
  const isNamed = parts[0]?.kind === "name";
  return {
    ...place,
    key: keyOfRule(kit, place),
    group,
    name: isNamed ? rule.name || rule.id || "" : "",
    summary: formatSentence(isNamed ? parts.slice(1) : parts, nameIn(kit)).trim(),
    isOff: rule.off ?? false,
  };
}

/**
 * Returns every rule, grouped by its control, moves before the patterns they answer; gates, prompts and
 * switches last.
 */
export function listRules(kit: Kit): RuleItem[] {
  const controlOf = controlsIn(kit);
  const moves = (kit.moves ?? []).map((move, index) =>
    itemOf(kit, { list: "moves", index }, controlOf(move.pattern)),
  );
  const patterns = kit.patterns.map((pattern, index) =>
    itemOf(kit, { list: "patterns", index }, controlOf(pattern.id)),
  );
  const rest = [
    ...(kit.gates ?? []).map((_, index) => itemOf(kit, { list: "gates", index }, "Gates")),
    ...(kit.prompts ?? []).map((_, index) => itemOf(kit, { list: "prompts", index }, "Prompts")),
    ...(kit.switches ?? []).map((_, index) => itemOf(kit, { list: "switches", index }, "Switches of modes")),
  ];
  const groups = new Map([...kit.controls.map(control => control.name), SEVERAL].map((name, k) => [name, k]));
  return [...[...moves, ...patterns].sort((a, b) => groups.get(a.group)! - groups.get(b.group)!), ...rest];
}
