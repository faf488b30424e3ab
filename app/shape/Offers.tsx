import { useState } from "react";
import { writeAt, type Kit } from "#core";
import { offersOf, type RuleItem } from "./model/rules";
import { useWorkbench } from "../document/workbenchContext";

/** The number that fits side by side, because the map below needs the room. */
const FIRST = 3;

/** The clauses that could be added to a rule, at the end of its sentence. */
export function Offers({ kit, rule }: { kit: Kit; rule: RuleItem }) {
  const workbench = useWorkbench();
  const [isWhole, setWhole] = useState(false);
  const offers = offersOf(kit, rule);
  if (offers.length === 0) return null;
  const shown = isWhole ? offers : offers.slice(0, FIRST);
  return (
    <p className="mt-1 flex flex-wrap gap-x-3 text-sm" role="group" aria-label="More parts for this rule">
      {shown.map(offer => (
        <button
          key={offer.words}
          type="button"
          className="py-0.5 text-moss underline-offset-4 hover:underline"
          onClick={() =>
            workbench.editKit(offer.words, now => writeAt(now, [rule.list, rule.index], offer.becomes))
          }
        >
          {offer.words}
        </button>
      ))}
      {offers.length > FIRST && (
        <button
          type="button"
          className="py-0.5 text-soft underline underline-offset-4"
          aria-expanded={isWhole}
          onClick={() => setWhole(!isWhole)}
        >
          {isWhole ? "less" : `${offers.length - FIRST} more`}
        </button>
      )}
    </p>
  );
}
