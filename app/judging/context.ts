import { createOwnerContext } from "../ui/ownerContext";
import type { Judge } from "./judge";
import type { Workers } from "./workers";

/** The compiled kits and evaluated takes of a page, and its workers. */
export interface Judging extends Workers {
  readonly judge: Judge;
}

export const [JudgingContext, useJudging] = createOwnerContext<Judging>("judging");
