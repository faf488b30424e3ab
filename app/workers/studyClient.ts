import { proxy, releaseProxy, wrap, type Remote } from "comlink";
import type { Fate, Kit, NearestMiss, Take } from "#core";
import type { StudyService } from "./studyProtocol";

let worker: Worker | undefined;
let service: Remote<StudyService> | undefined;
let asked = 0;

/** Ends the worker, and with it whatever it is at. The next question starts a new one. */
function endWorker(): void {
  service?.[releaseProxy]();
  worker?.terminate();
  worker = service = undefined;
}

function startWorker(): Remote<StudyService> {
  worker = new Worker(new URL("./study.worker.ts", import.meta.url), { type: "module" });
  worker.onerror = endWorker;
  return (service = wrap<StudyService>(worker));
}

/**
 * Asks for the nearest miss of each fate. Only the latest question is answered: one asked before ends with
 * undefined, and its work is broken off. `told` hears how many are done.
 */
export async function askMisses(
  kit: Kit,
  take: Take,
  fates: readonly Fate[],
  told: (done: number) => void,
): Promise<(NearestMiss | undefined)[] | undefined> {
  const number = ++asked;
  endWorker();
  const answer = await startWorker().findMisses(
    kit,
    take,
    fates,
    proxy(done => number === asked && told(done)),
  );
  return number === asked ? answer : undefined;
}
