import { Worker } from "node:worker_threads";
import { compileScript } from "./compile.mjs";

/** So many questions wait at each thread: it never runs dry, and memory stays flat. */
const AT_HAND = 2;

interface Answered<A> {
  readonly index: number;
  readonly answer: A;
}

/** Work that threads do: the script each of them runs, named from the project's folder, and the same begun here, for work too small to share. */
export interface ThreadWork<S, Q, A> {
  readonly script: string;
  readonly begin: (setup: S) => (question: Q) => A;
}

/**
 * Puts questions to threads, each begun with `setup`, and hears each answer with the place of its question as it comes. Ends
 * with the last answer; rejects when a thread dies. At most `threads` run, never more than there are questions; one alone
 * is no thread, but this one.
 */
export async function askThreads<S, Q, A>(
  { script, begin }: ThreadWork<S, Q, A>,
  setup: S,
  questions: readonly Q[],
  threads: number,
  hear: (index: number, answer: A) => void,
): Promise<void> {
  if (threads === 1 || questions.length <= 1) {
    const answer = begin(setup);
    questions.forEach((question, index) => hear(index, answer(question)));
    return;
  }
  let next = 0;
  const compiled = await compileScript(script);
  const workers = Array.from({ length: Math.min(threads, questions.length) }, () => {
    return new Worker(compiled, { workerData: { setup } });
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
