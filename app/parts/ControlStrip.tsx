import type { Control } from "#core";
import { useGradual } from "../ui/useGradual";
import { ControlPad } from "./ControlPad";

/** The on-screen pad as a strip of small controls with grips. */
export function ControlStrip({ label, controls }: { label: string; controls: readonly Control[] }) {
  const shown = useGradual(controls.length);
  return (
    <div
      className="flex shrink-0 items-start gap-2 overflow-x-auto px-5 py-1.5"
      role="group"
      aria-label={label}
    >
      {controls.slice(0, shown).map(control => (
        <ControlPad key={control.id} control={control} isSmall />
      ))}
    </div>
  );
}
