import { transfer } from "comlink";
import { unpackTake, type Take } from "#core";
import type { Job } from "./job";
import { JOBS } from "./kinds";
import type { JobEnd, JobService } from "./protocol";

const BEAT_MS = 200;

class Stopped extends Error {}

/** Yields so that pending messages are received. */
function receiveMessages(): Promise<void> {
  return new Promise(resolve => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
}

/**
 * Creates the worker's side of the protocol: runs questions, signals that it is alive, and receives
 * cancellations.
 */
export function createService(): JobService {
  const held = new Map<number, Take>();
  const stopped = new Set<number>();
  return {
    greet: () => undefined,
    hold: takes => takes.forEach(([key, take]) => held.set(key, unpackTake(take) as Take)),
    letGo: keys => keys.forEach(key => held.delete(key)),
    stop: id => void stopped.add(id),
    async run(id, name, question, keys, onProgress) {
      let beatAt = performance.now();
      const work = JOBS[name] as Job<unknown, unknown>;
      const takes = keys.map(key => held.get(key)!);
      const tools = {
        reportProgress(done: number, of: number, partial?: unknown) {
          beatAt = performance.now();
          onProgress({ done, of, ...(partial === undefined ? {} : { partial }) });
        },
        async yieldNow() {
          await receiveMessages();
          if (stopped.has(id)) throw new Stopped();
          if (performance.now() - beatAt < BEAT_MS) return;
          beatAt = performance.now();
          onProgress(undefined);
        },
      };
      try {
        const { value, transfer: buffers = [] } = await work(question, takes, tools);
        const end: JobEnd = { state: "done", value };
        return transfer(end, [...buffers] as ArrayBuffer[]);
      } catch (error) {
        if (error instanceof Stopped) return { state: "stopped" };
        return { state: "failed", reason: error instanceof Error ? error.message : String(error) };
      } finally {
        stopped.delete(id);
      }
    },
  };
}
