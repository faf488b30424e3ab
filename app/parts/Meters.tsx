import type { ReactNode } from "react";
import { traitsOf, type Kit } from "#core";
import { useGradual } from "../ui/useGradual";
import { MeterRing } from "./MeterRing";

/** The number of meters from which they are more than a screen shows. */
const MANY_METERS = 50;

/** The meters of all patterns of a kit that grow over time; `empty` in place of them if none does. */
export function Meters({ kit, className, empty = null }: { kit: Kit; className: string; empty?: ReactNode }) {
  const metered = kit.patterns.filter(pattern => !pattern.off && traitsOf(pattern.kind).meter !== "none");
  const shown = metered.slice(0, useGradual(metered.length));
  if (metered.length === 0) return empty;
  return (
    <div className={`flex flex-wrap ${className}`} role="group" aria-label="Meters">
      {shown.map(({ id, name }) => (
        <MeterRing key={id} patternId={id} name={name} isOneOfMany={metered.length > MANY_METERS} />
      ))}
    </div>
  );
}
