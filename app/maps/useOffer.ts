import { useEffect, useMemo, useState } from "react";
import type { Kit, Lever, SmallestChange, WantedPress } from "#core";
import { useWorkers } from "../judging/workers";
import type { TakesNow } from "./useTakes";

/** The pause after which offers are searched: a drag makes many kits, and only the last one matters. */
const REST_MS = 150;

/** An offer being searched. `change` is undefined if no value within reach saves a press. */
export interface LookedFor {
  readonly change: SmallestChange | undefined;
  /** The reason why the search failed; empty if it did not. */
  readonly trouble: string;
}

/** A change of a number, and the presses it should save. */
export interface OfferWanted {
  readonly lever: Lever;
  readonly wanted: readonly WantedPress[];
  /** The maximum change of the number, in frames. */
  readonly mostFrames: number;
}

/**
 * Searches, in a worker, for the smallest change of a number that saves some presses of the takes on the
 * maps, by running it on all of them. Returns undefined while searching, and if there is nothing to save.
 */
export function useOffer(kit: Kit, now: TakesNow | undefined, of: OfferWanted): LookedFor | undefined {
  const { jobs } = useWorkers();
  const [found, setFound] = useState<{ readonly of: object; readonly is: LookedFor }>();
  const key = JSON.stringify(of);
  const takes = useMemo(() => now?.takes.map(({ take }) => take) ?? [], [now]);
  const subject = useMemo(() => ({ kit, takes, key }), [kit, takes, key]);
  useEffect(() => {
    const { kit, takes, key } = subject;
    const question: OfferWanted = JSON.parse(key) as OfferWanted;
    if (question.wanted.length === 0) return;
    let stop = () => {};
    const timer = setTimeout(() => {
      const asked = jobs.ask({ job: "offer", question: { kit, ...question }, takes });
      stop = asked.stop;
      void asked.outcome.then(outcome => {
        if (outcome.state === "done") setFound({ of: subject, is: { change: outcome.value, trouble: "" } });
        if (outcome.state === "failed")
          setFound({ of: subject, is: { change: undefined, trouble: outcome.reason } });
      });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [jobs, subject]);
  return found?.of === subject ? found.is : undefined;
}
