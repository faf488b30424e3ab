import { useMemo } from "react";
import type { Take } from "#core";
import type { Group } from "../judging/jobs/groups";
import { useStudySettings } from "../document/studiesContext";
import type { TakeGroups } from "../document/studySettings";
import { groupTakes, type TakeGroup } from "./model/takeSelection";
import { useTakeSelection } from "./TakesWord";

/** The studied takes with the groups of them that are shown side by side. */
export interface Groups {
  readonly takes: readonly Take[];
  readonly by: TakeGroups;
  /** The groups; none for all takes together. */
  readonly list: readonly TakeGroup[];
  /** The number of groups that are left out. */
  readonly left: number;
  /** The names of the columns: of the groups, or one without a name. */
  readonly names: readonly string[];
  /** Returns the groups as questions name them, one for each column. */
  readonly asks: (isOwnHand: boolean) => readonly { readonly group?: Group }[];
}

/** The number of groups that are shown side by side; more are chosen by their takes. */
export const MAX_GROUPS = 12;

/** Returns the studied takes and their groups, at most so many as `limit`. */
export function useGroups(limit = MAX_GROUPS): Groups {
  const { takes } = useTakeSelection();
  const [{ groups: by }] = useStudySettings("takes");
  return useMemo(() => {
    const all = groupTakes(takes, by);
    const list = all.slice(0, limit);
    const ids = takes.map(({ id }) => id);
    return {
      takes,
      by,
      list,
      left: all.length - list.length,
      names: list.length > 0 ? list.map(({ name }) => name) : [""],
      asks(isOwnHand) {
        if (list.length > 0) return list.map(group => ({ group: { ids: [...group.ids], isOwnHand } }));
        return [isOwnHand ? { group: { ids, isOwnHand } } : {}];
      },
    };
  }, [takes, by, limit]);
}
