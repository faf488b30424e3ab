import { useState, type ReactNode } from "react";
import { Button } from "../ui/Button";

/** A list of which a part is shown, and one part more with each request. */
export function ListInParts({
  items,
  part,
  label,
  testId,
}: {
  items: readonly (() => ReactNode)[];
  /** The number of items that are shown first, and with each request for more. */
  part: number;
  label?: string;
  testId?: string;
}) {
  const [shown, setShown] = useState(part);
  const left = items.length - shown;
  return (
    <ul className="text-sm" aria-label={label} data-testid={testId}>
      {items.slice(0, shown).map((show, k) => (
        <li key={k}>{show()}</li>
      ))}
      {left > 0 && (
        <li>
          <Button look="quiet" className="-ml-2" onClick={() => setShown(shown + part)}>
            Show {Math.min(left, part)} more of {left}
          </Button>
        </li>
      )}
    </ul>
  );
}
