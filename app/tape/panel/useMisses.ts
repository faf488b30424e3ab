import { useEffect, useState } from "react";
import type { Fate, NearestMiss } from "#core";
import { useDesk } from "../../document/context";
import type { Evaluated } from "../../judging/judge";

/** How long the hand must rest before a question is asked: a pull makes many, and only the last is worth it. */
const REST_MS = 80;

/** The nearest misses of some fates: undefined until they are found; meanwhile how many are. */
export interface Misses {
  readonly found: readonly (NearestMiss | undefined)[] | undefined;
  readonly done: number;
  readonly trouble: string;
}

const NONE: Misses = { found: undefined, done: 0, trouble: "" };

/**
 * Looks for the nearest miss of each fate in a worker, so that no render and no hand waits for it. Keep `fates` the same
 * array while it means the same.
 */
export function useMisses({ rules, take }: Evaluated, fates: readonly Fate[]): Misses {
  const { jobs } = useDesk();
  const [state, setState] = useState<{ readonly of: readonly Fate[]; readonly misses: Misses }>({
    of: fates,
    misses: NONE,
  });
  useEffect(() => {
    if (fates.length === 0) return;
    let stop = () => {};
    const set = (misses: Misses) => setState({ of: fates, misses });
    const timer = setTimeout(() => {
      const asked = jobs.ask({
        job: "misses",
        question: { kit: rules.kit, fates },
        takes: [take],
        told: ({ done }) => set({ ...NONE, done }),
      });
      stop = asked.stop;
      void asked.outcome.then(outcome => {
        if (outcome.state === "done") set({ found: outcome.value, done: fates.length, trouble: "" });
        if (outcome.state === "failed") set({ ...NONE, trouble: outcome.reason });
      });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [jobs, rules, take, fates]);
  return state.of === fates ? state.misses : NONE;
}
