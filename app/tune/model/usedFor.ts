import { nameOf, type Kit, type PressShare } from "#core";

/**
 * Returns the names of the moves and prompts that used a press in its take, joined by "and"; for one that none used, its
 * control.
 */
export function usedFor(
  kit: Kit,
  { moves, prompts, control }: Pick<PressShare, "moves" | "prompts" | "control">,
): string {
  const names = [
    ...moves.map(index => nameOf(kit, "moves", kit.moves?.[index]?.id ?? "")),
    ...prompts.map(index => nameOf(kit, "prompts", kit.prompts?.[index]?.id ?? "")),
  ];
  return names.length > 0 ? names.join(" and ") : `${nameOf(kit, "controls", control)}, not used in the take`;
}
