import { expect, test } from "vitest";
import { STILL, type GoalCell, type Kit, type Share, type Take } from "#core";
import { drawTake, sketchKit } from "../../../core/tests/strips";
import type { FittedHand, GoalAsked, SweptChoice } from "../../document/studySettings";
import { EMPTY_POINT } from "../../tests/emptyPoint";
import { formatOnsets, withAims } from "./characters";
import { layoutGoal } from "./goalField";
import { contrastOf, formatRowContrast, sortByContrast, type ShareRow } from "./shareRows";
import { formatGroupLimits, listSweptGroups, keepWholeRows, runsOfValue } from "./sweepLines";
import { listSwept } from "./sweptNumbers";

const share = (value: number, half = 0.02): Share => ({
  ...{ hits: value * 100, n: 100, share: value },
  ...{ low: value - half, high: value + half },
});
const row = (name: string, ...shares: (Share | undefined)[]): ShareRow => ({ key: name, name, shares });
const percent = (value: number) => `${Math.round(value * 100)} %`;

test("the row whose intervals are furthest apart is first and named, with a word where it may be chance", () => {
  const close = row("Hop", share(0.9), share(0.89), undefined);
  const far = row("Leap", share(0.6), share(0.95), share(0.8));
  expect(contrastOf(far)).toMatchObject({ high: 1, low: 0 });
  expect(contrastOf(row("Roll", share(1), share(1)))).toBeUndefined();
  expect(sortByContrast([close, far]).map(({ name }) => name)).toEqual(["Leap", "Hop"]);
  const names = ["Wren", "Oda", "Bo"];
  expect(formatRowContrast([close, far], names, percent)).toBe(
    "They differ most in Leap: Oda 95 %, Wren 60 %.",
  );
  expect(formatRowContrast([close], names, percent)).toBe(
    "They differ most in Hop: Wren 90 %, Oda 89 %. Their intervals overlap: that may be chance.",
  );
  expect(formatRowContrast([row("Hop", share(0.901), share(0.899))], names, percent)).toBe(
    "They keep about the same share of every rule.",
  );
  expect(formatRowContrast([], names, percent)).toBeUndefined();
});

const KIT: Kit = sketchKit("a", {
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  moves: [{ id: "hop", name: "Hop", pattern: "p", buffer: "2f" }],
});

test("a goal for several groups is met where each meets it; a group without meant presses has nothing to meet", () => {
  const cell = (value: number, meeting: number, plays = 100): GoalCell => ({
    ...{ value, plays, meeting, meant: plays, kept: meeting },
    ...{ unwanted: plays / 10, hardest: undefined, hopeless: 0 },
  });
  const one = listSwept(KIT).find(({ key }) => key.endsWith("buffer"))!;
  const asked = { one, two: undefined, rows: [], groups: ["Wren", "Oda", "Bo"] } as unknown as GoalAsked;
  const field = layoutGoal(
    KIT,
    asked,
    [
      [cell(1, 99), cell(2, 100), cell(3, 100)],
      [cell(1, 60), cell(2, 96), cell(3, 97)],
      [cell(1, 0, 0), cell(2, 0, 0)],
    ],
    95,
  );
  expect(field.cellAt(undefined, 1)).toMatchObject({ meeting: 60 });
  // The third group has no answer for 3f yet.
  expect(field.cellAt(undefined, 3)).toBeUndefined();
  expect(field.best).toMatchObject({ cell: { value: 2, meeting: 96 } });
  expect(field.best!.cell.unwanted / field.best!.cell.plays).toBeCloseTo(0.1);
  expect(field.groupsAt(undefined, 2).map(({ name, cell: own }) => [name, own.meeting])).toEqual([
    ["Wren", 100],
    ["Oda", 96],
    ["Bo", 0],
  ]);
});

test("a sweep is split by group, and the limits are listed from the smallest", () => {
  const point = (value: number, lostPresses: number) => ({ ...EMPTY_POINT, value, lostPresses });
  const answers = [
    [point(1, 1), point(3, 0)],
    [point(2, 0)],
    [point(1, 1), point(3, 0)],
    [point(2, 1)],
    [point(1, 2), point(3, 1)],
    undefined,
  ];
  const groups = listSweptGroups(answers, { groups: ["Oda", "Wren", "Bo"], two: undefined });
  expect(groups.map(({ points }) => points.map(({ value }) => value))).toEqual([
    [1, 2, 3],
    [1, 2, 3],
    [1, 3],
  ]);
  expect(formatGroupLimits(groups, 1, value => `${value}f`)).toBe(
    "Nothing wanted is lost from 2f for Oda, from 3f for Wren. At every value swept something is lost of Bo.",
  );
  expect(listSweptGroups(answers, { groups: [], two: undefined })).toHaveLength(1);
});

test("halves of the plays add up to the runs of a value, and rows of a field do not", () => {
  const rows = [4, 3].map(runs => [1, 2].map(value => ({ ...EMPTY_POINT, value, runs })));
  const runsWith = (two: SweptChoice | undefined) => runsOfValue(listSweptGroups(rows, { groups: [], two }));
  expect(runsWith(undefined)).toBe(7);
  const coyote: SweptChoice = {
    ...{ key: "c", words: "Hop: coyote", name: "Hop: coyote", present: 5, least: 0 },
    swept: { kind: "group", group: "coyotes" },
  };
  expect(runsWith(coyote)).toBe(4);
});

test("a field has the rows that are played as often as was asked; faults at every value are all there is", () => {
  const row = (...repetitions: readonly number[]) =>
    repetitions.map((own, value) => ({ ...EMPTY_POINT, value, runs: own * 2, repetitions: own }));
  const [whole, shorter, faulty] = [row(4, 4, 0), row(3, 3, 0), row(0, 0)];
  expect(keepWholeRows([undefined, shorter, whole, faulty], 4)).toEqual([
    undefined,
    undefined,
    whole,
    faulty,
  ]);
  expect(keepWholeRows([row(0.5, 0.5)], 1)).toEqual([undefined]);
});

test("aims are those of the fitted takes that are unchanged, and of no other character", () => {
  const [one, two] = ["one", "two"].map((id): Take => ({ ...drawTake({ a: ".##." }, {}), id }));
  const character = { ...STILL, name: "Fitted", biasMs: -12, spreadMs: 30 };
  const aims = new Map([one!, two!].map(({ id }) => [id, new Map()]));
  const fitted = { character, aims, takes: [one!, two!] } as unknown as FittedHand;
  expect([...withAims(fitted, character, [one!, { ...two! }]).aims!.keys()]).toEqual(["one"]);
  expect(withAims(fitted, { ...character, name: "New" }, [one!])).toEqual({});
  expect(withAims(undefined, character, [one!])).toEqual({});
  expect(formatOnsets(character)).toBe("12 ms early, give or take 30 ms");
});
