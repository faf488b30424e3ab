import { Worker } from "node:worker_threads";

const BEGINNING = new URL("./thread.mjs", import.meta.url);

/** So many questions wait at each thread: it never runs dry, and memory stays flat. */
const AT_HAND = 2;

interface Answered<A> {
  readonly index: number;
  readonly answer: A;
}

/**
 * Puts questions to threads, each made from `script`, which is given `setup`, and hears each answer with the place
 * of its question as it comes. Ends with the last answer; rejects when a thread dies. At most `threads` run, never more
 * than there are questions.
 */
export async function askThreads<Q, A>(
  script: URL,
  setup: unknown,
  questions: readonly Q[],
  threads: number,
  hear: (index: number, answer: A) => void,
): Promise<void> {
  let next = 0;
  const workers = Array.from({ length: Math.min(threads, questions.length) }, () => {
    return new Worker(BEGINNING, { workerData: { script: script.href, setup } });
  });
  const ask = (worker: Worker): boolean => {
    if (next >= questions.length) return false;
    worker.postMessage({ index: next, question: questions[next] });
    next++;
    return true;
  };
  const work = workers.map(
    worker =>
      new Promise<void>((resolve, reject) => {
        let waiting = 0;
        worker.on("error", reject);
        worker.on("exit", code =>
          code === 0 ? resolve() : reject(new Error(`a thread ended with ${code}`)),
        );
        worker.on("message", ({ index, answer }: Answered<A>) => {
          waiting--;
          hear(index, answer);
          if (ask(worker)) waiting++;
          if (waiting === 0) resolve();
        });
        for (let k = 0; k < AT_HAND; k++) if (ask(worker)) waiting++;
        if (waiting === 0) resolve();
      }),
  );
  try {
    await Promise.all(work);
  } finally {
    await Promise.all(workers.map(worker => worker.terminate()));
  }
}
