import { useMemo } from "react";
import { formatFate, formatNearestMiss, writeAt, type Fate } from "#core";
import { Button } from "../../ui/Button";
import { useMisses } from "./useMisses";
import { useDesk, useSoundKit } from "../../document/context";
import { useTape } from "../hand/context";
import type { Evaluated } from "../../judging/judge";

/** What became of one press, in a sentence; for a lost one the smallest change that would have saved it, and a button that makes it. */
export function FateCard({ evaluated, fate }: { evaluated: Evaluated; fate: Fate }) {
  const { workbench } = useDesk();
  const { look } = useTape();
  // A cure is a change of the open kit: while that has faults it is not the one that judged this press.
  const isSound = useSoundKit() === evaluated.rules.kit;
  const asked = useMemo(
    () => (isSound && (fate.outcome === "lost" || fate.outcome === "lapsed") ? [fate] : []),
    [isSound, fate],
  );
  const { found, trouble } = useMisses(evaluated, asked);
  const miss = found?.[0];
  const close = () => look.setState({ fate: undefined });
  return (
    <div
      role="region"
      aria-label="Fate of the press"
      className="flex min-h-12 shrink-0 items-center gap-3 border-t-2 border-ink bg-paper px-5 py-1.5 text-sm"
      data-testid="fate"
    >
      <div className="flex grow flex-wrap items-center gap-x-4 gap-y-1">
        <p>{formatFate(evaluated.rules, evaluated.trace, fate)}</p>
        {miss && (
          <p>
            <Button
              onClick={() => workbench.editKit(`saved a press`, now => writeAt(now, miss.path, miss.to))}
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
