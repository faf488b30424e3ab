import { nameOf, type HandsResult, type Kit, type Share } from "#core";
import type { FoundStudy } from "../../document/studying";
import type { StudyResults } from "../../document/studySettings";

/** A row of shares: one for each column; undefined without a result. */
export interface ShareRow {
  readonly key: string;
  readonly name: string;
  readonly shares: readonly (Share | undefined)[];
}

type Sides = readonly (HandsResult | undefined)[];

/** Returns the row of all meant presses that are used. */
export function listKeptRows(sides: Sides): ShareRow[] {
  const shares = sides.map(side => side?.kept);
  return shares.some(share => share && share.n > 0)
    ? [{ key: "kept", name: "All meant presses", shares }]
    : [];
}

/** Returns a row for each move and each prompt that any side used. */
export function listRuleRows(kit: Kit, sides: Sides): ShareRow[] {
  return (["moves", "prompts"] as const).flatMap(list => {
    const used = sides.flatMap(side => (side?.[list] ?? []).map(({ index }) => index));
    return [...new Set(used)]
      .sort((a, b) => a - b)
      .map(index => ({
        key: `${list} ${index}`,
        name: nameOf(kit, list, kit[list]?.[index]?.id ?? ""),
        shares: sides.map(side => side?.[list].find(item => item.index === index)?.share),
      }));
  });
}

/** Returns a row for each check that was judged. */
export function listCheckRows(
  study: FoundStudy<StudyResults["hands"]> | undefined,
  sides: Sides,
): ShareRow[] {
  const found = sides.find(side => side !== undefined)?.checks ?? [];
  return found.map(({ check }) => ({
    key: `check ${check}`,
    name: study?.checks[check]?.name || (study?.checks[check]?.id ?? ""),
    shares: sides.map(side => side?.checks.find(item => item.check === check)?.share),
  }));
}

/** The two columns of a row that differ most, the higher share first, and the distance of their intervals: below 0 they overlap. */
export interface RowContrast {
  readonly high: number;
  readonly low: number;
  readonly distance: number;
}

/** Returns the contrast of a row; undefined if fewer than two columns have a share that differs. */
export function contrastOf({ shares }: ShareRow): RowContrast | undefined {
  let best: RowContrast | undefined;
  shares.forEach((one, high) =>
    shares.forEach((other, low) => {
      if (!one || !other || one.n === 0 || other.n === 0 || one.share <= other.share) return;
      const distance = one.low - other.high;
      if (best === undefined || distance > best.distance) best = { high, low, distance };
    }),
  );
  return best;
}

/** Returns rows by their contrast, those that differ most first; of equal ones in their order. */
export function sortByContrast(rows: readonly ShareRow[]): ShareRow[] {
  const distanceOf = (row: ShareRow) => contrastOf(row)?.distance ?? -Infinity;
  return rows
    .map(row => ({ row, by: distanceOf(row) }))
    .sort((a, b) => (a.by < b.by ? 1 : a.by > b.by ? -1 : 0))
    .map(({ row }) => row);
}

/** Returns a sentence on the row in which columns differ most, as far as `percent` shows it; undefined if none differ. */
export function formatRowContrast(
  rows: readonly ShareRow[],
  names: readonly string[],
  percent: (share: number) => string,
): string | undefined {
  const row = sortByContrast(rows)[0];
  const found = row && contrastOf(row);
  if (!row || !found) return undefined;
  const [high, low] = [found.high, found.low].map(column => percent(row.shares[column]!.share));
  if (high === low) return "They keep about the same share of every rule.";
  const words = (column: number) => `${names[column]} ${percent(row.shares[column]!.share)}`;
  const doubt = found.distance <= 0 ? " Their intervals overlap: that may be chance." : "";
  return `They differ most in ${row.name}: ${words(found.high)}, ${words(found.low)}.${doubt}`;
}
