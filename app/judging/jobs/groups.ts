import { fitCharacter, readTake, type FittedCharacter, type Kit, type Take } from "#core";
import { compileRules, runRules } from "#stage";
import type { JobTools } from "./job";

/** A group of the takes of a question, by their ids; `isOwnHand`: the character that plays them is fitted to them. */
export interface Group {
  readonly ids: readonly string[];
  readonly isOwnHand: boolean;
}

/** Returns the takes of a group, in their order; all without a group. */
export function takesOf(group: Group | undefined, takes: readonly Take[]): readonly Take[] {
  return group ? takes.filter(({ id }) => group.ids.includes(id)) : takes;
}

/** Fits a character to takes, with progress by take. Throws if the kit has faults. */
export async function fitTakes(kit: Kit, takes: readonly Take[], tools: JobTools): Promise<FittedCharacter> {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error("the kit has faults");
  const { program } = rules.value;
  const runs: Parameters<typeof fitCharacter>[1][number][] = [];
  for (const take of takes) {
    const columns = readTake(program, take);
    runs.push({ take, columns, trace: runRules(rules.value, columns).trace });
    tools.reportProgress(0, 1);
    await tools.yieldNow();
  }
  return fitCharacter(program, runs);
}

/** Returns a question with the character of the group that plays it: its own if it is fitted to its takes. */
export async function withOwnHand<Q extends { readonly kit: Kit }>(
  question: Q,
  group: Group | undefined,
  takes: readonly Take[],
  tools: JobTools,
): Promise<Q & Partial<Pick<FittedCharacter, "character" | "aims">>> {
  if (!group?.isOwnHand) return question;
  const { character, aims } = await fitTakes(question.kit, takes, tools);
  return { ...question, character, aims };
}
