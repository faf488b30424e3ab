import { nameOf, type HandsResult, type Kit, type Share } from "#core";
import type { Studies } from "../../document/studying";

/** A row of shares: one for each compared character; undefined without a result. */
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
export function listCheckRows(study: Studies["hands"], sides: Sides): ShareRow[] {
  return (sides[0]?.checks ?? []).map(({ check }) => ({
    key: `check ${check}`,
    name: study?.checks[check]?.name || (study?.checks[check]?.id ?? ""),
    shares: sides.map(side => side?.checks.find(item => item.check === check)?.share),
  }));
}
