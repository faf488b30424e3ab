import type { Take } from "#core";

/** What a job has at hand while it works. */
export interface JobTools {
  /** Tells how far it has come, and what is found so far where that is of use. */
  readonly tell: (done: number, of: number, partial?: unknown) => void;
  /**
   * To be awaited every few milliseconds of work: lets the worker say that it lives, and hear that the job is called
   * off. Rejects when it is.
   */
  readonly rest: () => Promise<void>;
}

/** What a job gives: the answer, and the buffers in it that are handed over rather than copied. */
export interface JobAnswer<A> {
  readonly value: A;
  readonly transfer?: readonly ArrayBufferLike[];
}

/** One kind of long work. `takes` are held by the worker from one question to the next, and sent only once. */
export type Job<Q, A> = (
  question: Q,
  takes: readonly Take[],
  tools: JobTools,
) => Promise<JobAnswer<A>> | JobAnswer<A>;
