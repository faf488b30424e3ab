import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { drawPlace } from "../../prompts/drawPlace";
import { evaluate } from "../../run/run";
import { drawTake, mustCompile, sketchKit } from "../../tests/strips";
import { formatFate } from "../formatFate";
import { listPressRows } from "../pressRows";
import { readOutcomes } from "./readOutcomes";

const RAM = {
  id: "ram",
  name: "Ram",
  kind: "charge" as const,
  control: "a",
  full: "9f",
  fire: "release" as const,
};
const CATCH = {
  id: "catch",
  name: "Rope",
  ask: ["tug"],
  starts: { at: "1f" },
  lead: "2f",
  window: "9f",
  early: "fail" as const,
  wrong: "fail" as const,
  wrongOn: ["b"],
};
const TUG = { id: "tug", name: "Tug", kind: "press" as const, control: "a" };

/** Returns the sentence of every press of a drawn take, and its outcome and what it ended in the table of presses. */
function read(kit: Kit, lanes: Record<string, string>) {
  const program = mustCompile(kit);
  const take = drawTake(lanes);
  const trace = evaluate(program, take);
  const rows = listPressRows(program, trace, take);
  return readOutcomes(program, trace).presses.map((fate, k) => {
    const { outcome, ended, ended_why } = rows[k]!;
    return [formatFate({ kit, program }, trace, fate), outcome, ended, ended_why];
  });
}

test("a press that cancels an attempt has ended it", () => {
  const kit = sketchKit("ab", { patterns: [{ ...RAM, cancel: ["b"] }] });
  expect(read(kit, { a: ".######..", b: "...##...#" })).toEqual([
    ["A at 1 completed nothing. Ram lapsed at 3: cancelled.", "lapsed", null, null],
    ["B at 3 cancelled Ram.", "ended", "ram", "cancelled"],
    ["B at 8 was seen by no rule.", "unheard", null, null],
  ]);
});

test("a press that is hidden from a rule does not cancel it", () => {
  const dive = { id: "dive", name: "Dive", kind: "tap" as const, control: "b", max: "9f", captures: true };
  const kit = sketchKit("ab", { patterns: [{ ...RAM, cancel: ["b"] }, dive] });
  expect(read(kit, { a: ".######..", b: "...##...." }).map(([, outcome]) => outcome)).toEqual([
    "fired",
    "fired",
  ]);
});

test("a press that fires a rule and cancels another has done both", () => {
  const guard = { id: "guard", name: "Guard", kind: "press" as const, control: "b" };
  const kit = sketchKit("ab", {
    patterns: [{ ...RAM, cancel: ["b"] }, guard],
    moves: [{ id: "parry", name: "Parry", pattern: "guard" }],
  });
  expect(read(kit, { a: ".######..", b: "...##...." })[1]).toEqual([
    "B at 3 became Parry at 3; it cancelled Ram.",
    "used",
    "ram",
    "cancelled",
  ]);
  expect(read({ ...kit, moves: [] }, { a: ".######..", b: "...##...." })[1]![0]).toBe(
    "B at 3 fired Guard; it cancelled Ram.",
  );
});

test("a press that breaks a sequence has ended it", () => {
  const roll = {
    id: "roll",
    name: "Roll",
    kind: "sequence" as const,
    steps: [{ press: "a" }, { press: "b" }],
    gap: "9f",
    others: "break" as const,
  };
  const kit = sketchKit("abc", { patterns: [roll] });
  expect(read(kit, { a: ".#........", c: "...#......" })[1]).toEqual([
    "C at 3 broke off Roll.",
    "ended",
    "roll",
    "broken",
  ]);
});

test("a press that fails a prompt has ended it: a wrong one, and one too early", () => {
  const kit = sketchKit("ab", { patterns: [TUG], prompts: [CATCH] });
  expect(read(kit, { a: "..........", b: ".....#...." })).toEqual([
    ["B at 5 failed Rope as the wrong button.", "ended", "catch", "wrong"],
  ]);
  expect(read(kit, { a: "..#.......", b: "...#......" })).toEqual([
    ["A at 2 fired Tug; it failed Rope by coming too early.", "fired", "catch", "too-early"],
    ["B at 3 was seen by no rule.", "unheard", null, null],
  ]);
});

test("of a prompt that draws, a fire of another rule it could ask for fails it", () => {
  const kit = sketchKit("ab", {
    patterns: [TUG, { id: "nod", name: "Nod", kind: "press", control: "b" }],
    prompts: [{ ...CATCH, ask: ["tug", "nod"], wrongOn: [], draw: 1 }],
  });
  const other = drawPlace(1, 0, 2) === 0 ? "b" : "a";
  expect(read(kit, { [other]: ".....#...." })).toEqual([
    [
      `${other.toUpperCase()} at 5 fired ${other === "a" ? "Tug" : "Nod"}; it failed Rope as the wrong button.`,
      "fired",
      "catch",
      "wrong",
    ],
  ]);
});
