import { studyHands, type Check, type HandsQuestion, type HandsResult } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/** Studies takes repeated with a character. */
export const handsJob: Job<
  { readonly hands: HandsQuestion; readonly checks: readonly Check[] },
  HandsResult
> = async ({ hands, checks }, takes, tools) => {
  const reportProgress = createProgressReporter(tools);
  const study = studyHands(hands, takes, prepareStudied(checks));
  return { value: await workThrough(study, tools, ({ done, of }) => reportProgress(done, of)) };
};
