import { Tinypool } from "tinypool";
import { compileScript } from "./compile.mjs";

/** The number of questions queued per thread: it never runs dry, and memory stays constant. */
const AT_HAND = 2;

/**
 * Work for threads: the script each one runs (see `answerIn`), relative to the project's folder, and the same
 * function for work too small to share.
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
  const count = Math.min(threads, questions.length);
  const pool = new Tinypool({
    filename: await compileScript(script),
    runtime: "worker_threads",
    minThreads: count,
    maxThreads: count,
    workerData: { setup },
  });
  let next = 0;
  const askOn = async (): Promise<void> => {
    while (next < questions.length) {
      const index = next++;
      onAnswer(index, (await pool.run(questions[index])) as A);
    }
  };
  try {
    await Promise.all(Array.from({ length: count * AT_HAND }, askOn));
  } finally {
    await pool.destroy();
  }
}
