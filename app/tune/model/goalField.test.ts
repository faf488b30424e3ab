import { expect, test } from "vitest";
import type { GoalCell, Kit } from "#core";
import { sketchKit } from "../../../core/tests/strips";
import type { GoalAsked } from "../../document/studySettings";
import { isPresent, layoutGoal, listSmaller } from "./goalField";
import { listSwept } from "./sweptNumbers";

const KIT: Kit = sketchKit("a", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  moves: [{ id: "hop", name: "Hop", pattern: "p", needs: [{ gate: "ground", coyote: "1f" }], buffer: "2f" }],
});
const choice = (end: string) => listSwept(KIT).find(({ key }) => key.endsWith(end))!;
const ASKED = {
  one: choice("buffer"),
  two: choice("coyote"),
  rows: [0, 1, 2],
  groups: [],
} as unknown as GoalAsked;
const cell = (value: number, meeting: number, unwanted = 0): GoalCell => ({
  value,
  plays: 100,
  meeting,
  meant: 100,
  kept: meeting,
  unwanted,
  hardest: undefined,
  hopeless: 0,
});

const FIELD = layoutGoal(
  KIT,
  ASKED,
  [
    [cell(1, 80), cell(2, 90), cell(3, 94)],
    [cell(1, 85), cell(2, 96), cell(3, 97)],
    // The last row has begun.
    [cell(1, 96)],
  ],
  95,
);

test("the best place has the smallest sum of frames among those that are enough", () => {
  // 2f with 1f, and 1f with 2f: the sum is the same, so the first is chosen.
  expect(FIELD.best).toEqual({ row: 1, cell: cell(2, 96) });
  expect(FIELD.columns).toEqual([1, 2, 3]);
  expect(FIELD.cellAt(2, 2)).toBeUndefined();
  expect(layoutGoal(KIT, ASKED, [undefined, undefined, undefined], 95)).toMatchObject({
    best: undefined,
    nearest: undefined,
  });
  const strict = layoutGoal(KIT, ASKED, [[cell(1, 80), cell(2, 90)], [cell(1, 90)], undefined], 95);
  expect([strict.best, strict.nearest]).toEqual([undefined, { row: 0, cell: cell(2, 90) }]);
  // Of places that no play meets, the one that keeps more presses is nearer.
  const none = [cell(1, 0), { ...cell(2, 0), kept: 40 }, { ...cell(3, 0), kept: 40 }];
  expect(layoutGoal(KIT, ASKED, [none], 95).nearest).toEqual({ row: 0, cell: none[1] });
});

test("a place has two smaller neighbours, at the edge fewer; the present values are known", () => {
  expect(
    listSmaller(FIELD, FIELD.best!).map(({ number, place }) => [number, place.row, place.cell.meeting]),
  ).toEqual([
    ["one", 1, 85],
    ["two", 0, 90],
  ]);
  expect(listSmaller(FIELD, { row: 0, cell: cell(1, 80) })).toEqual([]);
  expect([isPresent(KIT, ASKED, 1, 2), isPresent(KIT, ASKED, 1, 3)]).toEqual([true, false]);
});

test("one number has one row", () => {
  const { two: _two, ...one } = ASKED;
  const field = layoutGoal(KIT, { ...one, two: undefined, rows: [] }, [[cell(1, 10), cell(4, 99)]], 95);
  expect(field.rows).toEqual([undefined]);
  expect(field.best?.cell.value).toBe(4);
  expect(listSmaller(field, field.best!).map(({ number }) => number)).toEqual(["one"]);
});
