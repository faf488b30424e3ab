import { traitsOf, type Kit, type Pattern, type PatternProgram, type PatternTraits } from "#core";
import type { RulePlace } from "../../edits/ruleEdits";

type MapName = PatternTraits<Pattern, PatternProgram>["maps"][number];

/** Returns the pattern that a rule is, that its move follows, or that its prompt asks for first; undefined for other rules. */
export function patternOf({ patterns, moves = [], prompts = [] }: Kit, { list, index }: RulePlace) {
  if (list === "patterns") return patterns[index];
  const id = {
    moves: moves[index]?.pattern,
    prompts: prompts[index]?.ask[0],
    gates: undefined,
    switches: undefined,
  }[list];
  return patterns.find(pattern => pattern.id === id);
}

const mapsOf = (pattern: Pattern | undefined): readonly MapName[] =>
  pattern === undefined ? [] : traitsOf(pattern.kind).maps;

/** Returns whether a rule has a map of time: prompts, and those moves and patterns with times of their own. */
function hasMap(kit: Kit, { list, index }: RulePlace): boolean {
  if (list === "patterns") return mapsOf(kit.patterns[index]).length > 0;
  const { needs = [], frames } = kit.moves?.[index] ?? {};
  return list === "prompts" || (list === "moves" && (needs.length > 0 || frames !== undefined));
}

/**
 * Returns the rule that Shape opens where none is chosen: the first one about lengths of presses; else the first one with a map of
 * time, because a plain press has nothing to pull; else the first one. Undefined without rules.
 */
export function firstRule<R extends RulePlace>(kit: Kit, rules: readonly R[]): R | undefined {
  return (
    rules.find(rule => mapsOf(patternOf(kit, rule)).includes("press-length")) ??
    rules.find(rule => hasMap(kit, rule)) ??
    rules[0]
  );
}
