import { useEffect, useState } from "react";
import type { Fate, Repair, Take } from "#core";
import { useDesk } from "../../document/context";
import type { Evaluated } from "../../judging/judge";

/** How long the hand must rest before a question is asked: a pull makes many, and only the last is worth it. */
const REST_MS = 80;

/** The changes that would have saved some presses, in the order of the presses, as far as they were looked at. */
export interface Repairs {
  readonly found: readonly (readonly Repair[])[];
  /** How many presses were looked at, and whether that is all of them. */
  readonly done: number;
  readonly isWhole: boolean;
  readonly trouble: string;
}

const NONE: Repairs = { found: [], done: 0, isWhole: false, trouble: "" };

const NO_TAKES: readonly Take[] = [];

/** What is asked. Keep the lists the same while they mean the same. */
interface RepairsWanted {
  readonly fates: readonly Fate[];
  /** Only the nearest repair of each; else all, priced over `others` too. */
  readonly isNearestOnly: boolean;
  readonly others?: readonly Take[];
}

/** Looks in a worker for what would have saved some presses, so that no render and no hand waits for it. */
export function useRepairs(
  { rules, take }: Evaluated,
  { fates, isNearestOnly, others = NO_TAKES }: RepairsWanted,
): Repairs {
  const { jobs } = useDesk();
  const [state, setState] = useState<{ readonly of: readonly Fate[]; readonly repairs: Repairs }>({
    of: fates,
    repairs: NONE,
  });
  useEffect(() => {
    if (fates.length === 0) return;
    let stop = () => {};
    const set = (repairs: Repairs) => setState({ of: fates, repairs });
    const timer = setTimeout(() => {
      const asked = jobs.ask({
        job: "repairs",
        question: { kit: rules.kit, fates, isNearestOnly },
        takes: [take, ...others],
        told: ({ done, partial }) =>
          set({ ...NONE, found: (partial as Repairs["found"] | undefined) ?? [], done }),
      });
      stop = asked.stop;
      void asked.outcome.then(outcome => {
        if (outcome.state === "done")
          set({ found: outcome.value, done: fates.length, isWhole: true, trouble: "" });
        if (outcome.state === "failed") set({ ...NONE, trouble: outcome.reason });
      });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [jobs, rules, take, fates, isNearestOnly, others]);
  return state.of === fates ? state.repairs : NONE;
}
