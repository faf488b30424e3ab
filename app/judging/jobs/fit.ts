import { fitCharacter, readTake, type FittedCharacter, type Kit } from "#core";
import { compileRules, runRules } from "#stage";
import type { Job } from "./job";

/** Fits the character with which takes were played. */
export const fitJob: Job<{ readonly kit: Kit }, FittedCharacter> = async ({ kit }, takes, tools) => {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error("the kit has faults");
  const { program } = rules.value;
  const runs: Parameters<typeof fitCharacter>[1][number][] = [];
  for (const take of takes) {
    const columns = readTake(program, take);
    runs.push({ take, columns, trace: runRules(rules.value, columns).trace });
    tools.reportProgress(runs.length, takes.length);
    await tools.yieldNow();
  }
  return { value: fitCharacter(program, runs) };
};
