import { expect, test } from "vitest";
import { findOverlaps } from "#core";
import { prepareStudied } from "#stage";
import { readKitAndTakes } from "../../tests/evaluated";
import { cellOf, listOverlapGrids } from "./overlapGrid";

test("every pair of a search is in one cell of its grid, with what was found", () => {
  const { kit, takes } = readKitAndTakes("demo/clapper-duel");
  const search = findOverlaps(kit, takes, prepareStudied());
  let step = search.next();
  while (!step.done) step = search.next();
  const { found, none } = step.value;
  const grids = listOverlapGrids(found, none);
  expect(grids.reduce((sum, { cells }) => sum + cells.size, 0)).toBe(found.length + none.length);
  for (const pair of found) {
    const grid = grids.find(({ list }) => list === pair.list)!;
    const cell = cellOf(grid, pair.first, pair.second)!;
    expect(cell.overlap).toBe(pair);
    const isAlways = pair.inInputs.alone + pair.inTakes.alone === 0;
    expect(cell.look).toBe(isAlways ? "always" : "sometimes");
    expect(grid.rules).toEqual(expect.arrayContaining([pair.first, pair.second]));
  }
  for (const pair of none)
    expect(
      cellOf(
        grids.find(({ list }) => list === pair.list)!,
        pair.first,
        pair.second,
      )!.look,
    ).toBe("none");
  expect(listOverlapGrids([], [])).toEqual([]);
});
