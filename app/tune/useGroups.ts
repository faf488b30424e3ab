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
  /** The names of the columns: of the groups, or one without a name. */
  readonly names: readonly string[];
  /** Returns the groups as questions name them, one for each column. */
  readonly asks: (isOwnHand: boolean) => readonly { readonly group?: Group }[];
}

/** Returns the studied takes and their groups. */
export function useGroups(): Groups {
  const { takes } = useTakeSelection();
  const [{ groups: by }] = useStudySettings("takes");
  return useMemo(() => {
    const list = groupTakes(takes, by);
    const all = takes.map(({ id }) => id);
    return {
      takes,
      by,
      list,
      names: list.length > 0 ? list.map(({ name }) => name) : [""],
      asks(isOwnHand) {
        if (list.length > 0) return list.map(({ ids }) => ({ group: { ids: [...ids], isOwnHand } }));
        return [isOwnHand ? { group: { ids: all, isOwnHand } } : {}];
      },
    };
  }, [takes, by]);
}
