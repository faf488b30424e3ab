import type { PackedTake } from "#core";
import type { JobAnswer } from "./job";
import type { JOBS } from "./kinds";

/** The types of the messages between a page and its worker. */
export type JobName = keyof typeof JOBS;
export type QuestionOf<N extends JobName> = Parameters<(typeof JOBS)[N]>[0];
type EndOf<N extends JobName> = Awaited<ReturnType<(typeof JOBS)[N]>>;
export type AnswerOf<N extends JobName> = EndOf<N> extends JobAnswer<infer A> ? A : never;

/** The end of a job. Failures are sent as data. */
export type JobEnd =
  | { readonly state: "done"; readonly value: unknown }
  | { readonly state: "stopped" }
  | { readonly state: "failed"; readonly reason: string };

export interface JobService {
  /** Returns at once: a worker that does not answer is dead, whatever it is asked for. */
  readonly greet: () => void;
  /** Stores takes, each under its number, until they are dropped. */
  readonly hold: (takes: readonly (readonly [key: number, take: PackedTake])[]) => void;
  readonly letGo: (keys: readonly number[]) => void;
  /** Runs a question; `onProgress` receives signs of life and progress. */
  readonly run: (
    id: number,
    name: JobName,
    question: unknown,
    takes: readonly number[],
    onProgress: (progress: JobProgress | undefined) => void,
  ) => Promise<JobEnd>;
  readonly stop: (id: number) => void;
}

/** The progress of a job. */
export interface JobProgress {
  readonly done: number;
  readonly of: number;
  readonly partial?: unknown;
}
