import { useEffect, useMemo, useState } from "react";
import type { Fate, Repair, Take } from "#core";
import { useWorkers } from "../../judging/workers";
import type { Evaluated } from "../../judging/judge";

/** The pause after which repairs are requested: a drag makes many requests, and only the last one matters. */
const REST_MS = 80;

/** The repairs of some presses, in the order of the presses, as far as searched. */
export interface Repairs {
  readonly found: readonly (readonly Repair[])[];
  /** The number of presses searched, and whether that is all of them. */
  readonly done: number;
  readonly isWhole: boolean;
  readonly trouble: string;
}

const NONE: Repairs = { found: [], done: 0, isWhole: false, trouble: "" };

const NO_TAKES: readonly Take[] = [];

/** The request. Keep the lists identical while they mean the same. */
interface RepairsWanted {
  readonly fates: readonly Fate[];
  /** Only the nearest repair of each press; otherwise all, with prices that include `others`. */
  readonly isNearestOnly: boolean;
  readonly others?: readonly Take[];
}

/** Searches for repairs of some presses in a worker, so that neither renders nor input wait for it. */
export function useRepairs(
  { rules, take }: Evaluated,
  { fates, isNearestOnly, others = NO_TAKES }: RepairsWanted,
): Repairs {
  const { jobs } = useWorkers();
  const subject = useMemo(() => ({ fates, others }), [fates, others]);
  const [state, setState] = useState<{ readonly of: object; readonly repairs: Repairs }>({
    of: subject,
    repairs: NONE,
  });
  useEffect(() => {
    const { fates, others } = subject;
    if (fates.length === 0) return;
    let stop = () => {};
    const set = (repairs: Repairs) => setState({ of: subject, repairs });
    const timer = setTimeout(() => {
      const asked = jobs.ask({
        job: "repairs",
        question: { kit: rules.kit, fates, isNearestOnly },
        takes: [take, ...others],
        onProgress: ({ done, partial }) =>
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
  }, [jobs, rules, take, subject, isNearestOnly]);
  return state.of === subject ? state.repairs : NONE;
}
