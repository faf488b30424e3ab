import { useEffect, useState } from "react";
import type { Kit } from "#core";
import {
  createTrials,
  findAdvantage,
  findCancels,
  MAX_MOVES_TRIED,
  type Advantage,
  type Cancels,
} from "#stage";
import { useWorkers } from "../judging/workers";

/** The findings of the trials of a kit's moves, by index: undefined for moves that cannot be tried. */
export interface Tried {
  readonly kit: Kit;
  readonly advantages: readonly (Advantage | undefined)[];
  readonly cancels: readonly (Cancels | undefined)[];
}

/**
 * Tries the moves of a kit, up to `MAX_MOVES_TRIED`, one at a time between the events of the page. Until all are tried the
 * findings are those of the kit before; undefined before the first.
 */
export function useTrials(kit: Kit): Tried | undefined {
  const { yieldToUi } = useWorkers();
  const [tried, setTried] = useState<Tried>();
  useEffect(() => {
    let isGone = false;
    const tryAll = async () => {
      const trials = createTrials(kit);
      const advantages: (Advantage | undefined)[] = [];
      const cancels: (Cancels | undefined)[] = [];
      for (let m = 0; m < Math.min(MAX_MOVES_TRIED, kit.moves?.length ?? 0); m++) {
        await yieldToUi();
        if (isGone) return;
        advantages.push(findAdvantage(kit, m, trials));
        cancels.push(findCancels(kit, m, trials));
      }
      setTried({ kit, advantages, cancels });
    };
    void tryAll();
    return () => void (isGone = true);
  }, [kit, yieldToUi]);
  return tried;
}
