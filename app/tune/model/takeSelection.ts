import type { Take } from "#core";
import type { TakeSelection } from "../../document/studySettings";

/** Returns the players named by takes, each once, in alphabetical order. */
export function listPlayers(takes: readonly Take[]): string[] {
  return [...new Set(takes.flatMap(({ player }) => (player ? [player] : [])))].sort();
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
      return takes.filter(({ player }) => player === asked.player);
    case "chosen":
      return takes.filter(({ id }) => asked.ids.includes(id));
  }
}
