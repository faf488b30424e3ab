import { Worker } from "node:worker_threads";
import { compileScript } from "./compile.mjs";

/** The number of questions queued per thread: it never runs dry, and memory stays constant. */
const AT_HAND = 2;

interface Answered<A> {
  readonly index: number;
  readonly answer: A;
}

/**
 * Work for threads: the script each one runs, relative to the project's folder, and the same function for
 * work too small to share.
 */
export interface ThreadWork<S, Q, A> {
  readonly script: string;
  readonly begin: (setup: S) => (question: Q) => A;
}

/**
 * Sends questions to threads, each started with `setup`, and calls back with each answer and the index of its
 * question. Resolves after the last answer; rejects when a thread dies. Runs at most `threads`, and never
 * more than there are questions; a single one runs in this thread.
 */
export async function askThreads<S, Q, A>(
  { script, begin }: ThreadWork<S, Q, A>,
  setup: S,
  questions: readonly Q[],
  threads: number,
  onAnswer: (index: number, answer: A) => void,
): Promise<void> {
  if (threads === 1 || questions.length <= 1) {
    const answer = begin(setup);
    questions.forEach((question, index) => onAnswer(index, answer(question)));
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
          onAnswer(index, answer);
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
