import { existsSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { Tinypool } from "tinypool";

/** The number of questions queued per thread: it never runs dry, and memory stays constant. */
const AT_HAND = 2;

/** The scripts of threads, each beside the compiled command (see `compile.mjs`). */
export type ThreadScript = "checkThread" | "pressThread";

/** Work for threads: the script each one runs (see `answerIn`), and the same function for work too small to share. */
export interface ThreadWork<S, Q, A> {
  readonly thread: ThreadScript;
  readonly begin: (setup: S) => (question: Q) => A;
}

/** Returns the path of a thread's script; compiles it if this runs from its sources, as tests do. */
async function pathOf(thread: ThreadScript): Promise<string> {
  const beside = fileURLToPath(new URL(`./${thread}.mjs`, import.meta.url));
  if (existsSync(beside)) return beside;
  const compiler = "./compile.mjs";
  const { compileCommand } = (await import(compiler)) as { compileCommand: () => Promise<string> };
  return `${await compileCommand()}/${thread}.mjs`;
}

/**
 * Sends questions to threads, each started with `setup`, and calls back with each answer and the index of its
 * question. Resolves after the last answer; rejects when a thread dies. Runs at most `threads`, and never
 * more than there are questions; a single one runs in this thread.
 */
export async function askThreads<S, Q, A>(
  { thread, begin }: ThreadWork<S, Q, A>,
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
    filename: await pathOf(thread),
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
