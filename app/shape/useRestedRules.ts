import { useEffect, useState } from "react";
import type { RuleItem } from "./model/rules";

/** The pause after which the list is updated. */
const REST_MS = 120;

/** Returns whether two lists have the same rules and names, whatever their sentences. */
function isSameList(a: readonly RuleItem[], b: readonly RuleItem[]): boolean {
  return (
    a.length === b.length &&
    a.every((rule, k) => {
      const other = b[k]!;
      return (
        rule.key === other.key &&
        rule.name === other.name &&
        rule.group === other.group &&
        rule.isOff === other.isOff
      );
    })
  );
}

/**
 * Returns the rules for a list: an added, removed or renamed rule appears at once; changed sentences appear
 * only when input pauses, so that dragging a number stays smooth.
 */
export function useRestedRules(rules: readonly RuleItem[]): readonly RuleItem[] {
  const [shown, setShown] = useState(rules);
  useEffect(() => {
    if (shown === rules) return;
    const timer = setTimeout(() => setShown(rules), REST_MS);
    return () => clearTimeout(timer);
  }, [shown, rules]);
  return isSameList(shown, rules) ? shown : rules;
}
