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

/** Returns the names of the controls a pattern listens to. */
function controlOf(kit: Kit, patternId: string): string {
  const pattern = kit.patterns.find(item => item.id === patternId);
  const id = pattern && "control" in pattern ? pattern.control : undefined;
  return kit.controls.find(control => control.id === id)?.name ?? SEVERAL;
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
  const moves = (kit.moves ?? []).map((move, index) =>
    itemOf(kit, { list: "moves", index }, controlOf(kit, move.pattern)),
  );
  const patterns = kit.patterns.map((pattern, index) =>
    itemOf(kit, { list: "patterns", index }, controlOf(kit, pattern.id)),
  );
  const rest = [
    ...(kit.gates ?? []).map((_, index) => itemOf(kit, { list: "gates", index }, "Gates")),
    ...(kit.prompts ?? []).map((_, index) => itemOf(kit, { list: "prompts", index }, "Prompts")),
    ...(kit.switches ?? []).map((_, index) => itemOf(kit, { list: "switches", index }, "Switches of modes")),
  ];
  const groups = new Map([...kit.controls.map(control => control.name), SEVERAL].map((name, k) => [name, k]));
  return [...[...moves, ...patterns].sort((a, b) => groups.get(a.group)! - groups.get(b.group)!), ...rest];
}
