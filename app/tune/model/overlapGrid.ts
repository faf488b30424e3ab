import type { NoOverlap, Overlap } from "#core";

/** The finding for a pair of rules: the second always comes with the first, sometimes, or never in the inputs tried. */
export type PairLook = "always" | "sometimes" | "none";

export interface PairCell {
  readonly look: PairLook;
  /** Undefined where none was found. */
  readonly overlap: Overlap | undefined;
  readonly tried: number;
}

/** The rules of one list that share a control with another, and their pairs by row (first) and column (second). */
export interface OverlapGrid {
  readonly list: Overlap["list"];
  /** Indices of the rules in the kit, in its order. */
  readonly rules: readonly number[];
  readonly cells: ReadonlyMap<string, PairCell>;
}

const keyOf = (first: number, second: number) => `${first} ${second}`;

/** Returns the cell of a pair in that order; undefined if they share no control, or came in the other order. */
export const cellOf = ({ cells }: OverlapGrid, first: number, second: number): PairCell | undefined =>
  cells.get(keyOf(first, second));

/** Returns whether the second of a pair never came without the first. */
function isAlways({ inInputs, inTakes }: Overlap): boolean {
  return inInputs.alone === 0 && inTakes.alone === 0;
}

/** Returns the grids of patterns and of moves; a list without pairs has none. */
export function listOverlapGrids(found: readonly Overlap[], none: readonly NoOverlap[]): OverlapGrid[] {
  return (["patterns", "moves"] as const).flatMap(list => {
    const cells = new Map<string, PairCell>();
    const rules = new Set<number>();
    for (const overlap of found.filter(pair => pair.list === list)) {
      const { first, second, inInputs } = overlap;
      const look = isAlways(overlap) ? "always" : "sometimes";
      cells.set(keyOf(first, second), { look, overlap, tried: inInputs.total });
      rules.add(first).add(second);
    }
    for (const { first, second, tried } of none.filter(pair => pair.list === list)) {
      cells.set(keyOf(first, second), { look: "none", overlap: undefined, tried });
      rules.add(first).add(second);
    }
    return cells.size === 0 ? [] : [{ list, rules: [...rules].sort((a, b) => a - b), cells }];
  });
}

/** Returns the rules that come first in some pair, as rows, and those that come second, as columns. */
export function axesOf(grid: OverlapGrid): {
  readonly rows: readonly number[];
  readonly columns: readonly number[];
} {
  const { rules } = grid;
  return {
    rows: rules.filter(first => rules.some(second => cellOf(grid, first, second))),
    columns: rules.filter(second => rules.some(first => cellOf(grid, first, second))),
  };
}
