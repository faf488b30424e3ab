import { parentPort, workerData } from "node:worker_threads";

/** Answers questions in a thread; `begin` creates the answering function from the thread's setup. */
export function answerQuestions<S, Q, A>(begin: (setup: S) => (question: Q) => A): void {
  const answer = begin((workerData as { readonly setup: S }).setup);
  const port = parentPort;
  if (!port) throw new Error("this runs in a thread");
  port.on("message", ({ index, question }: { readonly index: number; readonly question: Q }) => {
    port.postMessage({ index, answer: answer(question) });
  });
}
