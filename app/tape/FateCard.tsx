import { useMemo } from "react";
import { formatFate, formatNearestMiss, writeAt, type Fate, type Kit } from "#core";
import { editKit, type Evaluated } from "../store/workbench";
import { Button } from "../ui/Button";
import { tapeLook } from "./tapeStore";
import { useMisses } from "./useMisses";

/** What became of one press, in a sentence; for a lost one the smallest change that would have saved it, and a button that makes it. */
export function FateCard({ kit, evaluated, fate }: { kit: Kit; evaluated: Evaluated; fate: Fate }) {
  const asked = useMemo(() => (fate.outcome === "lost" || fate.outcome === "lapsed" ? [fate] : []), [fate]);
  const { found, trouble } = useMisses(kit, evaluated, asked);
  const miss = found?.[0];
  const close = () => tapeLook.setState({ fate: undefined });
  return (
    <div
      role="region"
      aria-label="Fate of the press"
      className="absolute right-3 bottom-3 z-10 flex max-w-[640px] items-start gap-3 rounded-stone border-2 border-ink bg-paper px-4 py-2.5 text-sm"
      data-testid="fate"
    >
      <div>
        <p>{formatFate(kit, evaluated.program, evaluated.trace, fate)}</p>
        {miss && (
          <p className="mt-1">
            <Button
              onClick={() => editKit(`saved a press`, now => writeAt(now, miss.path, miss.to))}
              className="border-moss font-semibold text-moss"
            >
              {formatNearestMiss(miss)}
            </Button>
          </p>
        )}
        {found && !miss && fate.outcome === "lost" && (
          <p className="mt-1 text-soft">No single number within half a second would have saved it.</p>
        )}
        {trouble && <p className="mt-1 text-foxglove">What would have saved it was not found: {trouble}</p>}
      </div>
      <Button look="quiet" aria-label="Close the fate" onClick={close}>
        ×
      </Button>
    </div>
  );
}
