import { useState } from "react";
import { ruleToShow, type ShownRule } from "./model/openRule";
import type { RuleItem } from "./model/rules";

/** Returns the rule open for the key in the address: see `ruleToShow`; the rule of `first` if there is none. */
export function useOpenRule(
  rules: readonly RuleItem[],
  wanted: string | null,
  first: (rules: readonly RuleItem[]) => RuleItem | undefined,
): RuleItem | undefined {
  const [shown, setShown] = useState<ShownRule>();
  const open = ruleToShow(rules, wanted, shown) ?? first(rules);
  const isSame =
    shown?.wanted === wanted && shown.place.list === open?.list && shown.place.index === open.index;
  // Set while rendering: React renders again at once, with nothing drawn in between.
  if (open && !isSame) setShown({ wanted, place: { list: open.list, index: open.index } });
  return open;
}
