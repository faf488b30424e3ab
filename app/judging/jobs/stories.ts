import {
  alignStories,
  listStory,
  readOutcomes,
  readTake,
  sumCounts,
  type AlignedEvent,
  type Kit,
  type RuleCounts,
} from "#core";
import { compileRules, runRules } from "#stage";
import type { Job } from "./job";
import { createProgressReporter } from "./slices";

/**
 * A take's stories under a kit and under one version of it, aligned; `version` is an index in the question.
 */
export interface VersionStory {
  readonly take: string;
  readonly version: number;
  readonly events: readonly AlignedEvent[];
}

/** The aligned stories of takes under versions of a kit. */
export interface Stories {
  readonly stories: readonly VersionStory[];
  /**
   * The counts over all takes by rule, for the kit and for each version; undefined if a version has faults.
   */
  readonly counts: readonly (RuleCounts | undefined)[];
  readonly own: RuleCounts | undefined;
}

interface StoriesQuestion {
  readonly kit: Kit;
  /** Other versions: other numbers, or another rate to which lengths are converted. */
  readonly versions: readonly Kit[];
  /** Events within this distance have not slipped, in seconds; default one frame of the slower rate. */
  readonly slipSeconds?: number;
}

/** Runs takes under versions of a kit and aligns their stories with the kit's own. */
export const storiesJob: Job<StoriesQuestion, Stories> = async (
  { kit, versions, slipSeconds },
  takes,
  tools,
) => {
  const reportProgress = createProgressReporter(tools);
  const of = takes.length * (versions.length + 1);
  const stories: VersionStory[] = [];
  const counts: (RuleCounts | undefined)[] = [];
  let done = 0;
  const runAll = async (version: Kit) => {
    const rules = compileRules(version);
    if (!rules.ok) return undefined;
    const { program } = rules.value;
    const traces = [];
    for (const take of takes) {
      traces.push(runRules(rules.value, readTake(program, take)).trace);
      reportProgress(++done, of, () => ({ stories, counts, own: undefined }));
      await tools.yieldNow();
    }
    return {
      counts: sumCounts(
        program,
        traces.map(trace => readOutcomes(program, trace).counts),
      ),
      stories: traces.map(trace => listStory(program, trace)),
    };
  };
  const own = await runAll(kit);
  if (!own) throw new Error("the kit has faults");
  for (const [version, other] of versions.entries()) {
    const found = await runAll(other);
    counts.push(found?.counts);
    found?.stories.forEach((story, t) => {
      const events = alignStories(own.stories[t]!, kit.rate, story, other.rate, slipSeconds);
      stories.push({ take: takes[t]!.id, version, events });
    });
  }
  return { value: { stories, counts, own: own.counts } };
};
