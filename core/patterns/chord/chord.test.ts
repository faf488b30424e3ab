import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { drawTake, play, sketchKit } from "../../tests/strips";

function chord(fields: object): Kit {
  const pattern = { id: "c", name: "C", kind: "chord", controls: ["a", "b"], ...fields };
  return sketchKit("ab", { patterns: [pattern as Kit["patterns"][number]] });
}

test.each([
  ["within the spread", { spread: "2f" }, ".#####.", "...###.", ".~~F==."],
  ["one frame too far apart", { spread: "2f" }, ".#####.", "....##.", ".~~~x.."],
  ["without a spread any time will do", {}, ".######", "......#", ".~~~~~F"],
  ["never completed is silent", {}, ".##....", "...##..", ".~~~~.."],
  ["pressed again while the other stays", {}, "######", ".#.#.#", "~F.F.F"],
  ["held on after it, one frame short", { for: "3f" }, "#####.", "..##..", "~~~~x."],
  ["held on exactly", { for: "3f" }, "######", "..###.", "~~~~~F"],
  ["held on for longer", { for: "3f" }, "#######", "..#####", "~~~~~F="],
])("%s", (_what, fields, a, b, expected) => {
  expect(play(chord(fields), drawTake({ a, b })).phases("c")).toBe(expected);
});

test("its edges are the present presses, in the order of its controls", () => {
  const [fired] = play(chord({}), drawTake({ a: "...#", b: ".###" })).of("fired");
  expect(fired?.edges).toEqual([
    ["a", 3],
    ["b", 1],
  ]);
});
