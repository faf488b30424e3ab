import type { Take } from "#core";
import type { TakeGroups, TakeLabel, TakeSelection } from "../../document/studySettings";

export const TAKE_LABELS: readonly TakeLabel[] = ["player", "device", "session"];

/** Returns the values of a label among takes, each once, in alphabetical order; takes without it are left out. */
export function listLabels(takes: readonly Take[], label: TakeLabel): string[] {
  return [...new Set(takes.flatMap(take => take[label] || []))].sort();
}

/** Returns the selected takes, in order. */
export function selectTakes(
  asked: TakeSelection,
  takes: readonly Take[],
  openId: string | undefined,
): Take[] {
  switch (asked.kind) {
    case "all":
      return [...takes];
    case "open":
      return takes.filter(({ id }) => id === openId);
    case "player":
    case "device":
    case "session":
      return takes.filter(take => take[asked.kind] === asked.name);
    case "chosen":
      return takes.filter(({ id }) => asked.ids.includes(id));
  }
}

/** A group of takes, by the ids of its takes. */
export interface TakeGroup {
  readonly name: string;
  readonly ids: ReadonlySet<string>;
}

/**
 * Returns the groups of takes by a label, in alphabetical order and those without it last, or each take as a group of its
 * own in the order of the takes; no group for "none".
 */
export function groupTakes(takes: readonly Take[], by: TakeGroups): TakeGroup[] {
  if (by === "none") return [];
  if (by === "take") return takes.map(({ id, name }) => ({ name: name || id, ids: new Set([id]) }));
  const idsOf = (value: string | undefined) =>
    new Set(takes.filter(take => (take[by] || undefined) === value).map(({ id }) => id));
  const named = listLabels(takes, by).map(name => ({ name, ids: idsOf(name) }));
  const others = idsOf(undefined);
  return others.size === 0 ? named : [...named, { name: `no ${by}`, ids: others }];
}
