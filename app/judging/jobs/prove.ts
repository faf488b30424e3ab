import type { Check, Kit } from "#core";
import { compileTakeJudge, type TakeJudge, type TakeVerdict } from "#stage";
import type { Job } from "./job";

/** What is found is told first after so long, then so often, ms: each telling is work for the page too. */
const TELL_FIRST_MS = 15;
const TELL_EVERY_MS = 80;

/** What the checks find in some of the takes: by the take's place in the question. */
export interface ProvedTake {
  readonly take: number;
  readonly verdicts: readonly TakeVerdict[];
}

/** Judges by all checks; what names something that this version of a kit lacks is left out: there it finds nothing. */
function sift(kit: Kit, checks: readonly Check[]): TakeJudge {
  const whole = compileTakeJudge(kit, checks);
  if (whole.ok) return whole.value;
  const sound = checks.map((_, c) => c).filter(c => compileTakeJudge(kit, [checks[c]!]).ok);
  const judge = compileTakeJudge(
    kit,
    sound.map(c => checks[c]!),
  );
  if (!judge.ok) throw new Error("the kit does not read");
  return take => judge.value(take).map(found => ({ ...found, check: sound[found.check]! }));
}

/** Judges takes by checks, one after the other; what is found is told as it comes, and is the answer in the end. */
export const proveJob: Job<
  { readonly kit: Kit; readonly checks: readonly Check[] },
  readonly ProvedTake[]
> = async ({ kit, checks }, takes, tools) => {
  const judgeTake = sift(kit, checks);
  const all: ProvedTake[] = [];
  let tellAt = performance.now() + TELL_FIRST_MS;
  let told = 0;
  for (let take = 0; take < takes.length; take++) {
    const verdicts = judgeTake(takes[take]!);
    all.push({ take, verdicts });
    if (performance.now() >= tellAt) {
      tools.tell(all.length, takes.length, all.slice(told));
      tellAt = performance.now() + TELL_EVERY_MS;
      told = all.length;
    }
    await tools.rest();
  }
  return { value: all };
};
