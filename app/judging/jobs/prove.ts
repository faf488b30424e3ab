import { formatIssue, type Check, type Kit } from "#core";
import { compileTakeJudge, type TakeJudge, type TakeVerdict } from "#stage";
import type { Job } from "./job";

/**
 * The delay of the first report and the interval of later ones, in ms: each report causes work on the page.
 */
const REPORT_FIRST_MS = 4;
const REPORT_EVERY_MS = 80;

/** The verdicts of one take, by its index in the question. */
export interface ProvedTake {
  readonly take: number;
  readonly verdicts: readonly TakeVerdict[];
}

/**
 * Compiles all checks that can be judged; those that name something this version of the kit lacks are left
 * out.
 */
function sift(kit: Kit, checks: readonly Check[]): TakeJudge {
  const whole = compileTakeJudge(kit, checks);
  if (whole.ok) return whole.value;
  const sound = checks.map((_, c) => c).filter(c => compileTakeJudge(kit, [checks[c]!]).ok);
  const judge = compileTakeJudge(
    kit,
    sound.map(c => checks[c]!),
  );
  if (!judge.ok) throw new Error(`its rules cannot be played: ${judge.issues.map(formatIssue)[0]}`);
  return take => judge.value(take).map(found => ({ ...found, check: sound[found.check]! }));
}

/** Judges takes by checks, one after the other; reports verdicts as they come and returns all at the end. */
export const proveJob: Job<
  { readonly kit: Kit; readonly checks: readonly Check[] },
  readonly ProvedTake[]
> = async ({ kit, checks }, takes, tools) => {
  const judgeTake = sift(kit, checks);
  const all: ProvedTake[] = [];
  let reportAt = performance.now() + REPORT_FIRST_MS;
  let reported = 0;
  for (let take = 0; take < takes.length; take++) {
    const verdicts = judgeTake(takes[take]!);
    all.push({ take, verdicts });
    if (performance.now() >= reportAt) {
      tools.reportProgress(all.length, takes.length, all.slice(reported));
      reportAt = performance.now() + REPORT_EVERY_MS;
      reported = all.length;
    }
    await tools.yieldNow();
  }
  return { value: all };
};
