import {
  namesLosses,
  sweepValues,
  type Check,
  type FittedCharacter,
  type SweepPoint,
  type SweepQuestion,
} from "#core";
import { prepareStudied } from "#stage";
import { fitTakes, takesOf, type Group } from "./groups";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

const pickHand = ({ character, aims }: FittedCharacter) => ({ character, aims });

/** Computes the points of a sweep over takes, or those of a group, with checks judged; reports the points of the plays so far. */
export const sweepJob: Job<
  { readonly sweep: SweepQuestion; readonly checks: readonly Check[]; readonly group?: Group },
  readonly SweepPoint[]
> = async ({ sweep, checks, group }, takes, tools) => {
  const own = takesOf(group, takes);
  const { hands } = sweep;
  const fitted = group?.isOwnHand && hands ? await fitTakes(sweep.kit, own, tools) : undefined;
  const asked = fitted && hands ? { ...sweep, hands: { ...hands, ...pickHand(fitted) } } : sweep;
  const question = { ...asked, areChecksDecided: checks.every(check => check.off || !namesLosses(check)) };
  const reportProgress = createProgressReporter(tools);
  const study = sweepValues(question, own, prepareStudied(checks));
  const value = await workThrough(study, tools, ({ runs, of, points }) => reportProgress(runs, of, points));
  return { value };
};
