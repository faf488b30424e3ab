import { shareOf, type Share } from "../hands/wilson";
import type { MoveFeel } from "./feelReport";

/** The feel of every move in the takes of one group, as of a player. */
export interface GroupFeel {
  readonly name: string;
  /** See reportMoves; the same moves in every group. */
  readonly moves: readonly MoveFeel[];
}

/** How the groups differ in one move. `most` and `least`: indices of groups. */
export interface Contrast {
  readonly move: number;
  /** The share of presses lost, of those used or lost, in every group. */
  readonly lost: readonly Share[];
  /** The groups with the largest and the smallest share lost, among those with any press; undefined if no two of them differ. */
  readonly most: number | undefined;
  readonly least: number | undefined;
  /**
   * The distance between the 95 % intervals of these two shares: above 0 they do not overlap, so that chance hardly
   * explains the difference; −1 if there is nothing to compare.
   */
  readonly apart: number;
}

/**
 * Returns the contrast of every move that has a press in some group, the one whose shares are farthest apart first; moves
 * with equal distance stay in order. A press is lost or used as in the rooms and misses of `moves`.
 */
export function contrastGroups(groups: readonly GroupFeel[]): Contrast[] {
  const count = groups[0]?.moves.length ?? 0;
  const contrasts = Array.from({ length: count }, (_, move): Contrast => {
    const lost = groups.map(({ moves }) => {
      const { rooms, misses } = moves[move]!;
      return shareOf(misses.length, rooms.length + misses.length);
    });
    const played = lost.flatMap(({ n }, group) => (n > 0 ? [group] : []));
    played.sort((a, b) => lost[b]!.share - lost[a]!.share);
    const [most, least] = [played[0], played.at(-1)];
    if (most === undefined || least === undefined || lost[most]!.share === lost[least]!.share)
      return { move, lost, most: undefined, least: undefined, apart: -1 };
    return { move, lost, most, least, apart: lost[most]!.low - lost[least]!.high };
  });
  return contrasts.filter(({ lost }) => lost.some(({ n }) => n > 0)).sort((a, b) => b.apart - a.apart);
}

/**
 * Formats the largest contrast: "Hop differs most: Wren loses 3 of 10 presses, Ada none of 12; so few may differ by chance."
 * Undefined if the groups differ in no move.
 */
export function formatContrast(
  contrasts: readonly Contrast[],
  groups: readonly GroupFeel[],
  nameOfMove: (move: number) => string,
): string | undefined {
  const [first] = contrasts;
  if (first?.most === undefined || first.least === undefined) return undefined;
  const lossesOf = (group: number) => {
    const { hits, n } = first.lost[group]!;
    return `${hits === 0 ? "none" : hits} of ${n}`;
  };
  const name = (group: number) => groups[group]!.name;
  const chance = first.apart > 0 ? "" : "; so few may differ by chance";
  const presses = first.lost[first.most]!.n === 1 ? "press" : "presses";
  return `${nameOfMove(first.move)} differs most: ${name(first.most)} loses ${lossesOf(first.most)} ${presses}, ${name(first.least)} ${lossesOf(first.least)}${chance}.`;
}
