import { Tinypool } from "tinypool";

/**
 * Returns the function that answers questions in a thread, the default export of its script. `begin` creates
 * it from the thread's setup when the first question arrives.
 */
export function answerIn<S, Q, A>(begin: (setup: S) => (question: Q) => A): (question: Q) => A {
  let answer: ((question: Q) => A) | undefined;
  return question => (answer ??= begin((Tinypool.workerData as { readonly setup: S }).setup))(question);
}
