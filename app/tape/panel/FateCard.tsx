import { useMemo } from "react";
import { formatFate, formatNearestMiss, writeAt, type Fate, type Kit } from "#core";
import { editKit, type Evaluated } from "../../document/workbench";
import { useSoundKit } from "../../document/useWorkbench";
import { Button } from "../../ui/Button";
import { tapeLook } from "../tapeLook";
import { useMisses } from "./useMisses";

/** What became of one press, in a sentence; for a lost one the smallest change that would have saved it, and a button that makes it. */
export function FateCard({ kit, evaluated, fate }: { kit: Kit; evaluated: Evaluated; fate: Fate }) {
  // A cure is a change of the open kit: while that has faults it is not the one that judged this press.
  const isSound = useSoundKit() === kit;
  const asked = useMemo(
    () => (isSound && (fate.outcome === "lost" || fate.outcome === "lapsed") ? [fate] : []),
    [isSound, fate],
  );
  const { found, trouble } = useMisses(kit, evaluated, asked);
  const miss = found?.[0];
  const close = () => tapeLook.setState({ fate: undefined });
  return (
    <div
      role="region"
      aria-label="Fate of the press"
      className="flex min-h-12 shrink-0 items-center gap-3 border-t-2 border-ink bg-paper px-5 py-1.5 text-sm"
      data-testid="fate"
    >
      <div className="flex grow flex-wrap items-center gap-x-4 gap-y-1">
        <p>{formatFate(kit, evaluated.program, evaluated.trace, fate)}</p>
        {miss && (
          <p>
            <Button
              onClick={() => editKit(`saved a press`, now => writeAt(now, miss.path, miss.to))}
              className="border-moss font-semibold text-moss"
            >
              {formatNearestMiss(miss)}
            </Button>
          </p>
        )}
        {found && !miss && fate.outcome === "lost" && (
          <p className="text-soft">No single number within half a second would have saved it.</p>
        )}
        {trouble && <p className="text-foxglove">What would have saved it was not found: {trouble}</p>}
      </div>
      <Button look="quiet" aria-label="Close the fate" onClick={close}>
        ×
      </Button>
    </div>
  );
}
