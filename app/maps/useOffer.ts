import { useEffect, useMemo, useState } from "react";
import type { Kit, Lever, SmallestChange, WantedPress } from "#core";
import { useDesk } from "../document/context";
import type { TakesNow } from "./useTakes";

/** How long the hand must rest before offers are looked for: a pull makes many kits, and only the last is worth it. */
const REST_MS = 150;

/** An offer that is looked for: undefined while it is; `change` undefined where nothing within reach saves a press. */
export interface LookedFor {
  readonly change: SmallestChange | undefined;
  /** Why it could not be looked for; empty where it could. */
  readonly trouble: string;
}

/** A change of a number, and the presses it should save. */
export interface OfferWanted {
  readonly lever: Lever;
  readonly wanted: readonly WantedPress[];
  /** How far the number may move. */
  readonly mostFrames: number;
}

/**
 * Looks, in a worker, for the smallest change of a number that saves some presses of the takes on the maps: it has been run
 * on all of them before it is offered. Undefined while it looks, and where there is nothing to save.
 */
export function useOffer(kit: Kit, now: TakesNow | undefined, of: OfferWanted): LookedFor | undefined {
  const { jobs } = useDesk();
  const [found, setFound] = useState<{ readonly of: string; readonly kit: Kit; readonly is: LookedFor }>();
  const key = JSON.stringify(of);
  const takes = useMemo(() => now?.takes.map(({ take }) => take) ?? [], [now]);
  useEffect(() => {
    const question: OfferWanted = JSON.parse(key) as OfferWanted;
    if (question.wanted.length === 0) return;
    let stop = () => {};
    const timer = setTimeout(() => {
      const asked = jobs.ask({ job: "offer", question: { kit, ...question }, takes });
      stop = asked.stop;
      void asked.outcome.then(outcome => {
        if (outcome.state === "done") setFound({ of: key, kit, is: { change: outcome.value, trouble: "" } });
        if (outcome.state === "failed")
          setFound({ of: key, kit, is: { change: undefined, trouble: outcome.reason } });
      });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [jobs, kit, takes, key]);
  return found?.of === key && found.kit === kit ? found.is : undefined;
}
