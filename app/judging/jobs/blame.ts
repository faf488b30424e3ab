import { deleteAt, listChanges, writeAt, type Change, type Check, type Kit } from "#core";
import { compileTakeJudge } from "#stage";
import type { Job } from "./job";

/**
 * The cause of a broken check: how many edits ago it still held, and the changes since then that alone would
 * fix it.
 */
export interface Blame {
  readonly editsAgo: number;
  readonly mends: readonly Change[];
  /** Every change since it held. */
  readonly changes: readonly Change[];
}

/** The maximum number of changes tried one by one. */
const MAX_CHANGES_TRIED = 60;

/** Returns a kit with one change reverted. */
export function takeBack(kit: Kit, { path, before }: Change): Kit {
  return before === undefined ? deleteAt(kit, path) : writeAt(kit, path, before);
}

/**
 * Searches earlier versions of the kit, latest first, for the last one under which a check held in a take,
 * then tries which single change since then fixes it when reverted. Undefined if it held under none.
 */
export const blameJob: Job<
  { readonly kit: Kit; readonly past: readonly Kit[]; readonly check: Check },
  Blame | undefined
> = async ({ kit, past, check }, [take], tools) => {
  const holds = (version: Kit) => {
    const judge = compileTakeJudge(version, [check]);
    return judge.ok && judge.value(take!).every(verdict => verdict.ok);
  };
  for (let ago = 0; ago < past.length; ago++) {
    tools.reportProgress(ago, past.length);
    await tools.yieldNow();
    if (!holds(past[ago]!)) continue;
    const changes = listChanges(past[ago], kit);
    const mends: Change[] = [];
    for (const change of changes.slice(0, MAX_CHANGES_TRIED)) {
      await tools.yieldNow();
      if (holds(takeBack(kit, change))) mends.push(change);
    }
    return { value: { editsAgo: ago + 1, mends, changes } };
  }
  return { value: undefined };
};
