import { proxy, wrap } from "comlink";
import type { Fate, Kit, NearestMiss, Take } from "#core";
import type { StudyService } from "./studyProtocol";

/** A question at work: its answer, and how to break it off. */
export interface MissesAsked {
  readonly answer: Promise<readonly (NearestMiss | undefined)[]>;
  readonly stop: () => void;
}

/**
 * Asks for the nearest miss of each fate, in a worker of its own that ends with the answer. Stopped, it ends at once
 * and the answer never comes. `told` hears how many are done. The answer fails if the worker dies.
 */
export function askMisses(
  kit: Kit,
  take: Take,
  fates: readonly Fate[],
  told: (done: number) => void,
): MissesAsked {
  const worker = new Worker(new URL("./study.worker.ts", import.meta.url), { type: "module" });
  const stop = () => worker.terminate();
  const died = new Promise<never>((_, reject) => {
    worker.onerror = event => reject(new Error(event.message || "the worker died"));
  });
  const answer = Promise.race([wrap<StudyService>(worker).findMisses(kit, take, fates, proxy(told)), died]);
  return { answer: answer.finally(stop), stop };
}
