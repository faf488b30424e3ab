import type { Take } from "#core";

/** The takes a study applies to. */
export type TakeSelection =
  | { readonly kind: "all" }
  | { readonly kind: "open" }
  | { readonly kind: "player"; readonly player: string }
  | { readonly kind: "chosen"; readonly ids: readonly string[] };

export const ALL: TakeSelection = { kind: "all" };

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
