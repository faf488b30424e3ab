import type { Take } from "#core";
import type { TakeFilter } from "../../document/studySettings";

const distinct = (values: readonly (string | undefined)[]) =>
  [...new Set(values.filter(value => value !== undefined && value !== ""))].sort() as string[];

/** Returns the filters that distinguish some takes from others, as choices. */
export function listFilters(takes: readonly Take[]): { readonly value: string; readonly label: string }[] {
  return [
    { value: "all", label: "all takes" },
    ...distinct(takes.map(({ player }) => player)).map(player => ({
      value: `player ${player}`,
      label: `takes by ${player}`,
    })),
    ...distinct(takes.map(({ device }) => device)).map(device => ({
      value: `device ${device}`,
      label: `takes played on ${device}`,
    })),
    ...(takes.some(({ note }) => note) ? [{ value: "note", label: "takes with a note" }] : []),
  ];
}

function isBy({ player, device, note }: Take, by: string): boolean {
  if (by === "note") return note !== undefined && note !== "";
  if (by.startsWith("player ")) return player === by.slice("player ".length);
  if (by.startsWith("device ")) return device === by.slice("device ".length);
  return true;
}

/** Returns the takes that match a filter, in order. A filter value that no take has matches all. */
export function filterTakes(takes: readonly Take[], { by, words }: TakeFilter): readonly Take[] {
  const isKnown = listFilters(takes).some(({ value }) => value === by);
  const wanted = words.trim().toLowerCase();
  return takes.filter(take => {
    const text = [take.name, take.player, take.device, take.note].join("\n").toLowerCase();
    return (!isKnown || isBy(take, by)) && text.includes(wanted);
  });
}
