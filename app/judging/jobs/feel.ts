import {
  gapFrames,
  listDelays,
  listOnsets,
  readOutcomes,
  readTake,
  studyRooms,
  type Kit,
  type TakeFeel,
} from "#core";
import { compileRules, createBranching, runRules } from "#stage";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/** Computes counts, rooms, delays and misses of each take; reports take by take. */
export const feelJob: Job<{ readonly kit: Kit }, readonly TakeFeel[]> = async ({ kit }, takes, tools) => {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error("the kit has faults");
  const { program } = rules.value;
  const reportProgress = createProgressReporter(tools);
  const feels: TakeFeel[] = [];
  for (const [t, take] of takes.entries()) {
    const columns = readTake(program, take);
    const { trace } = runRules(rules.value, columns);
    const outcomes = readOutcomes(program, trace);
    const study = studyRooms(program, columns, outcomes, createBranching(rules.value, columns));
    const { rooms, misses } = await workThrough(study, tools, ({ done, of }) => {
      reportProgress(t + done / of, takes.length, () => feels);
    });
    const { counts, requests } = outcomes;
    const delays = listDelays(program, trace, requests, gapFrames(take, program.rateHz));
    const onsets = listOnsets(program, { take, trace });
    feels.push({ take: take.id, counts, rooms, misses, delays, onsets });
  }
  return { value: feels };
};
