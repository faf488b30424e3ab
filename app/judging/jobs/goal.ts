import { studyGoal, type Check, type GoalCell, type GoalQuestion } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/** Computes the cells of a goal over takes, with checks judged; reports cells as they are found. */
export const goalJob: Job<
  { readonly goal: GoalQuestion; readonly checks: readonly Check[] },
  readonly GoalCell[]
> = async ({ goal, checks }, takes, tools) => {
  const cells: GoalCell[] = [];
  const reportProgress = createProgressReporter(tools);
  const study = studyGoal(goal, takes, prepareStudied(checks));
  const value = await workThrough(study, tools, ({ runs, of, cell }) => {
    if (cell) cells.push(cell);
    reportProgress(runs, of, () => cells);
  });
  return { value };
};
