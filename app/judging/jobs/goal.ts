import { namesLosses, studyGoal, type Check, type GoalCell, type GoalQuestion } from "#core";
import { prepareStudied } from "#stage";
import { takesOf, withOwnHand, type Group } from "./groups";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/** Computes the cells of a goal over takes, or those of a group, with checks judged; reports the cells of the plays so far. */
export const goalJob: Job<
  { readonly goal: GoalQuestion; readonly checks: readonly Check[]; readonly group?: Group },
  readonly GoalCell[]
> = async ({ goal, checks, group }, takes, tools) => {
  const own = takesOf(group, takes);
  const question = await withOwnHand(goal, group, own, tools);
  const reportProgress = createProgressReporter(tools);
  const isNeverDecided = !(goal.never ?? []).some(c => namesLosses(checks[c]!));
  const study = studyGoal({ ...question, isNeverDecided }, own, prepareStudied(checks));
  const value = await workThrough(study, tools, ({ runs, of, cells }) => reportProgress(runs, of, cells));
  return { value };
};
