import { joinNames, nameOf, type Kit, type PressShare } from "#core";

/**
 * Returns the names of the moves and prompts that used a press in its take; of one that none used, the moves that lost it, or
 * its control if no request was made of it.
 */
export function usedFor(
  kit: Kit,
  { moves, prompts, lostBy, control }: Pick<PressShare, "moves" | "prompts" | "lostBy" | "control">,
): string {
  const namesOf = (kind: "moves" | "prompts", indices: readonly number[]) =>
    indices.map(index => nameOf(kit, kind, kit[kind]?.[index]?.id ?? ""));
  const users = [...namesOf("moves", moves), ...namesOf("prompts", prompts)];
  if (users.length > 0) return joinNames(users);
  const losers = namesOf("moves", lostBy);
  return losers.length > 0 ? joinNames(losers) : nameOf(kit, "controls", control);
}
