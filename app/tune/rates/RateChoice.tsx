import { useState } from "react";
import { useStudySettings } from "../../document/studiesContext";
import { Button } from "../../ui/Button";
import { noStep } from "../../ui/noStep";
import { NumberStone } from "../../ui/NumberStone";

const OFFERED = [30, 50, 60, 72, 90, 120, 144, 240] as const;
/** The rate first offered to add, in frames per second. */
const FIRST_OTHER = 100;

/** The rates to judge at: usual ones to toggle, and any other to add. */
export function RateChoice() {
  const [{ rates }, set] = useStudySettings("rates");
  const [other, setOther] = useState(FIRST_OTHER);
  const sorted = (list: readonly number[]) => [...list].sort((a, b) => a - b);
  const toggle = (rate: number) =>
    set({ rates: rates.includes(rate) ? rates.filter(item => item !== rate) : sorted([...rates, rate]) });
  const shown = sorted([...new Set([...OFFERED, ...rates])]);
  return (
    <p className="my-1 flex flex-wrap items-center gap-1 text-sm" role="group" aria-label="Rates to judge at">
      {shown.map(rate => {
        const isChosen = rates.includes(rate);
        return (
          <Button
            key={rate}
            aria-pressed={isChosen}
            className={isChosen ? "border-moss font-semibold text-moss" : ""}
            onClick={() => toggle(rate)}
          >
            {isChosen ? "● " : "○ "}
            {rate}
          </Button>
        );
      })}
      <span className="ml-2">
        or{" "}
        <NumberStone
          label="another rate"
          value={other}
          onChange={setOther}
          beginStep={() => noStep()}
          least={1}
          most={1000}
          isWhole
        />
      </span>
      <Button look="quiet" disabled={rates.includes(other)} onClick={() => toggle(other)}>
        Add {other}
      </Button>
    </p>
  );
}
