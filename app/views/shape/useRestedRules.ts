import { useEffect, useState } from "react";
import type { RuleItem } from "./rules";

/** How long the hand must rest before the list is read anew. */
const REST_MS = 120;

/** Are these the same rules by name, whatever their sentences say? */
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
 * The rules as a list shows them: a rule more or less, or another name, at once; new words in their sentences only when
 * the hand has rested, so that a number dragged in one of them has its picture in time.
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
