import type { Take } from "#core";

/** Which takes a study is of. */
export type TakesAsked =
  | { readonly kind: "all" }
  | { readonly kind: "open" }
  | { readonly kind: "player"; readonly player: string }
  | { readonly kind: "chosen"; readonly ids: readonly string[] };

export const ALL: TakesAsked = { kind: "all" };

/** The players that takes name, each once, in alphabetical order. */
export function listPlayers(takes: readonly Take[]): string[] {
  return [...new Set(takes.flatMap(({ player }) => (player ? [player] : [])))].sort();
}

/** The takes that are asked for, in their order. */
export function readAsked(asked: TakesAsked, takes: readonly Take[], openId: string | undefined): Take[] {
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
