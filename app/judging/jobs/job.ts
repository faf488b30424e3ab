import type { Take } from "#core";

/** The tools of a running job. */
export interface JobTools {
  /** Reports progress, and the partial result if it is useful. */
  readonly reportProgress: (done: number, of: number, partial?: unknown) => void;
  /**
   * Await this every few milliseconds of work: the worker signals that it is alive and can be cancelled.
   * Rejects when cancelled.
   */
  readonly yieldNow: () => Promise<void>;
}

/** The result of a job: the answer, and its buffers to transfer. */
export interface JobAnswer<A> {
  readonly value: A;
  readonly transfer?: readonly ArrayBufferLike[];
}

/** One kind of long work. The worker keeps `takes` between questions, so each is sent only once. */
export type Job<Q, A> = (
  question: Q,
  takes: readonly Take[],
  tools: JobTools,
) => Promise<JobAnswer<A>> | JobAnswer<A>;
