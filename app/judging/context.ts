import { createOwnerContext } from "../ui/ownerContext";
import type { Jobs } from "./jobs/jobs";
import type { Judge } from "./judge";

/** The compiled kits and evaluated takes of a page, and its workers. */
export interface Judging {
  readonly judge: Judge;
  readonly jobs: Jobs;
  /** Yields between two slices of long work. */
  readonly yieldToUi: () => Promise<void>;
}

export const [JudgingContext, useJudging] = createOwnerContext<Judging>("judging");
