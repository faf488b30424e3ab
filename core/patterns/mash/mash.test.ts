import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { drawTake, play, sketchKit } from "../../tests/strips";

function mash(fields: object): Kit {
  const pattern = {
    id: "m",
    name: "M",
    kind: "mash",
    controls: ["a", "b"],
    count: 3,
    within: "6f",
    ...fields,
  };
  return sketchKit("ab", { patterns: [pattern as Kit["patterns"][number]] });
}

test.each([
  ["just quick enough", "#..#..#...", "..........", "~~~~~~F..."],
  ["one frame too slow", "#..#...#..", "..........", "~~~~~~~~~~"],
  ["any of its controls count", "#...#.....", "..#.......", "~~~~F....."],
  ["two on one frame count both", "#..#......", "#.........", "~~~F......"],
  ["counts from zero after a fire", "#.#.#.#.#", ".........", "~~~~F.~~~"],
  ["goes quiet when the last press is too old", "#.........", "..........", "~~~~~~~..."],
])("%s", (_what, a, b, expected) => {
  expect(play(mash({}), drawTake({ a, b })).phases("m")).toBe(expected);
});

test("the window slides: an old press does not spoil later quick ones", () => {
  expect(
    play(mash({}), drawTake({ a: "#....#..#..#", b: "" }))
      .of("fired")
      .map(e => e.f),
  ).toEqual([11]);
});

test("alternating, the same control again does not count, also across a fire", () => {
  const run = play(mash({ alternate: true }), drawTake({ a: "#.#...#...#", b: "....#...#.." }));
  expect(run.of("fired").map(e => [e.f, e.edges])).toEqual([
    [
      6,
      [
        ["a", 0],
        ["b", 4],
        ["a", 6],
      ],
    ],
  ]);
  const across = play(mash({ alternate: true, count: 2 }), drawTake({ a: "#...#.#...", b: "..#......#" }));
  expect(across.of("fired").map(e => e.f)).toEqual([2, 9]);
});

test("a mash that lapses because a control is hidden counts no press of that frame", () => {
  const kit = mash({ count: 2 });
  const run = play(
    {
      ...kit,
      gates: [{ id: "g", name: "G" }],
      patterns: [
        ...kit.patterns,
        { id: "p", name: "P", kind: "press", control: "a" },
        { id: "q", name: "Q", kind: "press", control: "b" },
      ],
      prompts: [{ id: "r", name: "R", ask: ["p"], starts: { gate: "g" }, window: "9f", captures: ["b"] }],
    },
    drawTake({ a: "....##..##.", b: "..#########" }, { g: "....#......" }),
  );
  expect(run.of("lapsed").map(e => [e.f, e.id])).toEqual([[4, "m"]]);
  expect(run.of("fired").filter(e => e.id === "m")).toEqual([]);
});
