import { nameOf, type Kit, type PressShare } from "#core";

/** Returns the names of the moves and prompts that used a press, joined by "and". */
export function usedFor(kit: Kit, { moves, prompts }: Pick<PressShare, "moves" | "prompts">): string {
  return [
    ...moves.map(index => nameOf(kit, "moves", kit.moves?.[index]?.id ?? "")),
    ...prompts.map(index => nameOf(kit, "prompts", kit.prompts?.[index]?.id ?? "")),
  ].join(" and ");
}
