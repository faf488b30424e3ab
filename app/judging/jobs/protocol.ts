import type { PackedTake } from "#core";
import type { JobAnswer } from "./job";
import type { JOBS } from "./kinds";

/** Types only: what a page and its worker say to each other. */
export type JobName = keyof typeof JOBS;
export type QuestionOf<N extends JobName> = Parameters<(typeof JOBS)[N]>[0];
type EndOf<N extends JobName> = Awaited<ReturnType<(typeof JOBS)[N]>>;
export type AnswerOf<N extends JobName> = EndOf<N> extends JobAnswer<infer A> ? A : never;

/** How a job ended. Failures cross as data. */
export type JobEnd =
  | { readonly state: "done"; readonly value: unknown }
  | { readonly state: "stopped" }
  | { readonly state: "failed"; readonly reason: string };

export interface JobService {
  /** Keeps takes, each under its number, until they are let go. */
  readonly hold: (takes: readonly (readonly [key: number, take: PackedTake])[]) => void;
  readonly letGo: (keys: readonly number[]) => void;
  /** Works on a question; `told` hears that the job lives, and how far it has come. */
  readonly run: (
    id: number,
    name: JobName,
    question: unknown,
    takes: readonly number[],
    told: (progress: JobProgress | undefined) => void,
  ) => Promise<JobEnd>;
  readonly stop: (id: number) => void;
}

/** How far a job has come. */
export interface JobProgress {
  readonly done: number;
  readonly of: number;
  readonly partial?: unknown;
}
