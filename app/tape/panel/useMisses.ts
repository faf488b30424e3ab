import { useEffect, useState } from "react";
import type { Fate, Kit, NearestMiss } from "#core";
import type { Evaluated } from "../../document/workbench";
import { askMisses } from "../../judging/studyClient";

/** How long the hand must rest before a question is asked: a pull makes many, and only the last is worth it. */
const REST_MS = 80;

/** The nearest misses of some fates: undefined until they are found; meanwhile how many are. */
export interface Misses {
  readonly found: readonly (NearestMiss | undefined)[] | undefined;
  readonly done: number;
  readonly trouble: string;
}

const NONE: Misses = { found: undefined, done: 0, trouble: "" };

/** Looks for the nearest miss of each fate in a worker, so that no render and no hand waits for it. Keep `fates` the same array while it means the same. */
export function useMisses(kit: Kit, evaluated: Evaluated, fates: readonly Fate[]): Misses {
  const [state, setState] = useState<{ readonly of: readonly Fate[]; readonly misses: Misses }>({
    of: fates,
    misses: NONE,
  });
  useEffect(() => {
    if (fates.length === 0) return;
    let stop = () => {};
    const set = (misses: Misses) => setState({ of: fates, misses });
    const timer = setTimeout(() => {
      const asked = askMisses(kit, evaluated.take, fates, done => set({ ...NONE, done }));
      stop = asked.stop;
      asked.answer.then(
        found => set({ found, done: fates.length, trouble: "" }),
        (error: unknown) => set({ ...NONE, trouble: error instanceof Error ? error.message : String(error) }),
      );
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [kit, evaluated, fates]);
  return state.of === fates ? state.misses : NONE;
}
