import type { World } from "./compose";
import { fileOfRaw } from "#handover";
import { download } from "./storage/files";

/** Returns the browser's localStorage; undefined if it is forbidden. */
function smallStore(): Storage | undefined {
  try {
    return localStorage;
  } catch {
    console.info("This browser keeps no small store: the last edit before a page is left may be lost.");
    return undefined;
  }
}

/** Returns the browser's world. */
export function browserWorld(): World {
  return {
    databaseName: "moss-tap",
    nowMs: () => performance.now(),
    wallMs: () => Date.now(),
    setTimer(ms, run) {
      const timer = setTimeout(run, ms);
      return () => clearTimeout(timer);
    },
    yieldToUi: () => new Promise(resolve => setTimeout(resolve)),
    nextTurn(run) {
      const request = requestAnimationFrame(run);
      return () => cancelAnimationFrame(request);
    },
    localStorage: smallStore(),
    locks: "locks" in navigator ? navigator.locks : undefined,
    channel: "BroadcastChannel" in window ? new BroadcastChannel("moss-tap") : undefined,
    startWorker: () =>
      new Worker(new URL("./judging/jobs/jobs.worker.ts", import.meta.url), { type: "module" }),
    cores: navigator.hardwareConcurrency,
    saveRaw: (name, raw) => download(fileOfRaw(name, raw)),
  };
}

/**
 * Returns the world on the server, where pages are only rendered: nothing is stored, played or computed
 * there.
 */
export function serverWorld(): World {
  const never = () => () => undefined;
  return {
    databaseName: "",
    nowMs: () => 0,
    wallMs: () => 0,
    setTimer: never,
    yieldToUi: () => Promise.resolve(),
    nextTurn: never,
    localStorage: undefined,
    locks: undefined,
    channel: undefined,
    startWorker() {
      throw new Error("the server does no long work");
    },
    cores: 1,
    saveRaw: () => undefined,
  };
}
