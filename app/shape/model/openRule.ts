import type { RulePlace } from "../../edits/ruleEdits";

/** The rule shown last, and the key of the address that it was shown for. */
export interface ShownRule {
  readonly wanted: string | null;
  readonly place: RulePlace;
}

/**
 * Returns the rule to show for the key in the address. A key that no rule has any more, because the rule was renamed or
 * deleted, or its addition undone, leads to the rule now at its place, or to the last one of its list; a key
 * that never led to a rule leads to none.
 */
export function ruleToShow<R extends RulePlace & { readonly key: string }>(
  rules: readonly R[],
  wanted: string | null,
  shown: ShownRule | undefined,
): R | undefined {
  const named = rules.find(rule => rule.key === wanted);
  if (named || !shown || shown.wanted !== wanted) return named;
  const { list, index } = shown.place;
  const last = rules.filter(rule => rule.list === list).length - 1;
  return rules.find(rule => rule.list === list && rule.index === Math.min(index, last));
}
