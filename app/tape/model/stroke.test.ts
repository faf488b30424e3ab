import { expect, test } from "vitest";
import { beginStroke, endStroke } from "./stroke";
import { addSpan, createRow, EMPTY_TAPE, type TapeModel } from "./tapeRows";

const lane = createRow("controls", { id: "a", name: "A" });
addSpan(lane, 10, 20, "down");
const MODEL: TapeModel = {
  ...EMPTY_TAPE,
  frames: 40,
  rows: [lane, createRow("patterns", { id: "p", name: "P" })],
};

function stroke(at: number, to: number, isWipe = false) {
  const begun = beginStroke(MODEL, 0, at, 1, isWipe)!;
  const { wipeFrom, wipeTo, fillFrom, fillTo } = endStroke(begun, to, 40);
  return [
    begun.grip,
    wipeTo > wipeFrom ? [wipeFrom, wipeTo] : [],
    fillTo > fillFrom ? [fillFrom, fillTo] : [],
  ];
}

test.each([
  ["a new press, from left to right", 25.5, 28, ["new", [], [25, 29]]],
  ["a new press, from right to left", 28.5, 25, ["new", [], [25, 29]]],
  ["a click is one frame", 25.5, 25, ["new", [], [25, 26]]],
  ["the end pulled out", 19.8, 24, ["end", [10, 20], [10, 25]]],
  ["the end pushed in past the start leaves one frame", 19.8, 3, ["end", [10, 20], [10, 11]]],
  ["the start pulled out", 10.2, 4, ["start", [10, 20], [4, 20]]],
  ["moved", 15.5, 18, ["body", [10, 20], [13, 23]]],
  ["moved no further than the beginning", 15.5, -20, ["body", [10, 20], [0, 10]]],
  ["moved no further than the end", 15.5, 90, ["body", [10, 20], [30, 40]]],
] as const)("%s", (_what, at, to, expected) => {
  expect(stroke(at, to)).toEqual(expected);
});

test("a wipe empties what it sweeps; rows of rules cannot be painted", () => {
  expect(stroke(15.5, 17, true)).toEqual(["wipe", [15, 18], []]);
  expect(beginStroke(MODEL, 1, 5, 1, false)).toBeUndefined();
});
