import type { Check, Kit } from "#core";
import { compileTakeJudge, type TakeVerdict } from "#stage";
import type { Job } from "./job";

/** What is found so far is told so often, ms. */
const TELL_EVERY_MS = 40;

/** What the checks find in some of the takes: by the take's place in the question. */
export interface ProvedTake {
  readonly take: number;
  readonly verdicts: readonly TakeVerdict[];
}

/** Judges takes by checks, one after the other; what is found is told as it comes, and is the answer in the end. */
export const proveJob: Job<
  { readonly kit: Kit; readonly checks: readonly Check[] },
  readonly ProvedTake[]
> = async ({ kit, checks }, takes, tools) => {
  const judge = compileTakeJudge(kit, checks);
  if (!judge.ok) throw new Error("the checks do not go with the kit");
  const all: ProvedTake[] = [];
  let toldAt = performance.now();
  let told = 0;
  for (let take = 0; take < takes.length; take++) {
    all.push({ take, verdicts: judge.value(takes[take]!) });
    if (performance.now() - toldAt >= TELL_EVERY_MS) {
      tools.tell(all.length, takes.length, all.slice(told));
      toldAt = performance.now();
      told = all.length;
    }
    await tools.rest();
  }
  return { value: all };
};
