import {
  studyHands,
  type Aims,
  type Character,
  type Check,
  type HandsQuestion,
  type HandsResult,
} from "#core";
import { prepareStudied } from "#stage";
import { takesOf, withOwnHand, type Group } from "./groups";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/** The result of a study of hands, with the character that played and the aims of the presses. */
export interface PlayedHands extends HandsResult {
  readonly character: Character;
  readonly aims: Aims | undefined;
}

/** Studies takes, or those of a group, repeated with a character. */
export const handsJob: Job<
  { readonly hands: HandsQuestion; readonly checks: readonly Check[]; readonly group?: Group },
  PlayedHands
> = async ({ hands, checks, group }, takes, tools) => {
  const own = takesOf(group, takes);
  const question = await withOwnHand(hands, group, own, tools);
  const reportProgress = createProgressReporter(tools);
  const study = studyHands(question, own, prepareStudied(checks));
  const result = await workThrough(study, tools, ({ done, of }) => reportProgress(done, of));
  return { value: { ...result, character: question.character, aims: question.aims } };
};
