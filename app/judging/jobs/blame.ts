import { listChanges, takeBackChange, type Change, type Check, type Kit } from "#core";
import { compileTakeJudge } from "#stage";
import type { Job } from "./job";

/** The causes of a broken check, and how many edits ago it still held. */
export interface Blame {
  readonly editsAgo: number;
  /** The version under which it held. */
  readonly heldBy: Kit;
  /**
   * Changes since then that fix it when taken back, together if there are several. No change of a cause can stay: each is
   * needed. Several causes are alternatives.
   */
  readonly causes: readonly (readonly Change[])[];
  /** Every change since it held. */
  readonly changes: readonly Change[];
}

/** The maximum number of changes tried. */
const MAX_CHANGES_TRIED = 60;

const takeBackAll = (kit: Kit, changes: readonly Change[]) => changes.reduce(takeBackChange, kit);

/**
 * Searches earlier versions of the kit, latest first, for the last one under which a check held in a take. Then it tries
 * which single changes since then fix it when taken back; if none does, it looks for changes that do so together, by
 * leaving out each that is not needed. Undefined if the check held under no version.
 */
export const blameJob: Job<
  { readonly kit: Kit; readonly past: readonly Kit[]; readonly check: Check },
  Blame | undefined
> = async ({ kit, past, check }, [take], tools) => {
  const holds = (version: Kit) => {
    const judge = compileTakeJudge(version, [check]);
    return judge.ok && judge.value(take!).every(verdict => verdict.ok);
  };
  const findTogether = async (changes: readonly Change[]) => {
    if (changes.length > MAX_CHANGES_TRIED || !holds(takeBackAll(kit, changes))) return [];
    let needed = changes;
    for (const change of changes) {
      await tools.yieldNow();
      const fewer = needed.filter(other => other !== change);
      if (holds(takeBackAll(kit, fewer))) needed = fewer;
    }
    return [needed];
  };
  for (let ago = 0; ago < past.length; ago++) {
    tools.reportProgress(ago, past.length);
    await tools.yieldNow();
    if (!holds(past[ago]!)) continue;
    const changes = listChanges(past[ago], kit);
    const alone: Change[][] = [];
    for (const change of changes.slice(0, MAX_CHANGES_TRIED)) {
      await tools.yieldNow();
      if (holds(takeBackChange(kit, change))) alone.push([change]);
    }
    const causes = alone.length > 0 ? alone : await findTogether(changes);
    return { value: { editsAgo: ago + 1, heldBy: past[ago]!, causes, changes } };
  }
  return { value: undefined };
};
