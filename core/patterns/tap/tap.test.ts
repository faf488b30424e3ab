import { expect, test } from "vitest";
import { drawTake, play, sketchKit } from "../../tests/strips";

const tap = (max: string) =>
  sketchKit("a", { patterns: [{ id: "t", name: "T", kind: "tap", control: "a", max }] });

test.each([
  ["one frame under", ".##.....", ".~~F...."],
  ["exactly", ".###....", ".~~~F..."],
  ["one over, let go on that frame", ".####...", ".~~~~x.."],
  ["two over", ".#####..", ".~~~~x.."],
])("a tap of 3f: %s", (_what, a, expected) => {
  expect(play(tap("3f"), drawTake({ a })).phases("t")).toBe(expected);
});

test("at most rounds down: 66ms at 60 Hz is three frames", () => {
  expect(play(tap("66ms"), drawTake({ a: "###..####." })).phases("t")).toBe("~~~F.~~~~x");
});

test("the fire carries the press as its edge and nothing else", () => {
  expect(play(tap("3f"), drawTake({ a: "..#.." })).events).toEqual([
    { f: 3, kind: "fired", id: "t", edges: [["a", 2]] },
  ]);
});

test("a release carries its held time, in frames of its clock", () => {
  const kit = sketchKit("a", { patterns: [{ id: "r", name: "R", kind: "release", control: "a" }] });
  const run = play(kit, drawTake({ a: ".####.#." }, {}, [[0, 50]]));
  expect(run.phases("r")).toBe(".~~~~F~F");
  expect(run.of("fired").map(e => e.held)).toEqual([2, 0.5]);
});
