import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { drawTake, play, sketchKit } from "../../tests/strips";

function taps(fields: object): Kit {
  const pattern = {
    id: "t",
    name: "T",
    kind: "taps",
    control: "a",
    count: 2,
    gap: "4f",
    answer: "nth",
    ...fields,
  };
  return sketchKit("a", { patterns: [pattern as Kit["patterns"][number]] });
}

test.each([
  ["second press one frame inside", {}, ".#..#...", ".~~~F..."],
  ["second press exactly at the gap", {}, ".#...#..", ".~~~~F.."],
  ["one frame late: lapses, and the late press starts anew", {}, ".#....#......", ".~~~~~x~~~~x."],
  ["no second press lapses on the first frame past the gap", {}, ".#........", ".~~~~~x..."],
  ["after the second press the next starts a new chain", {}, ".#.#.#.#.", ".~~F.~~F."],
  ["each fires on every press, and is quiet at the end", { answer: "each" }, ".#.#.....", ".F~F....."],
  ["each starts again after the last", { answer: "each" }, ".#.#.#...", ".F~F.F~~~"],
  ["final waits out the gap for a single", { answer: "final" }, ".#........", ".~~~~~F..."],
  ["final answers a double at once", { answer: "final" }, ".#.#......", ".~~F......"],
  ["final, still held when the chain is over", { answer: "final" }, ".########.", ".~~~~~F==."],
  ["a press held too long lapses the chain", { max: "2f" }, ".####.#...", ".~~~x.~~~~"],
  ["a press held exactly as long as it may", { max: "2f" }, ".##.#.....", ".~~~F....."],
  ["held over, let go on that very frame", { max: "2f" }, ".###.#....", ".~~~x~~~~~"],
])("%s", (_what, fields, a, expected) => {
  expect(play(taps(fields), drawTake({ a })).phases("t")).toBe(expected);
});

test("a chain over on the very frame of a new press fires for the old one and starts anew", () => {
  const run = play(taps({ answer: "final" }), drawTake({ a: ".#....#......" }));
  expect(run.of("fired").map(e => [e.f, e.count, e.edges])).toEqual([
    [6, 1, [["a", 1]]],
    [11, 1, [["a", 6]]],
  ]);
});

test("every fire counts the presses so far and has them as edges", () => {
  const fired = play(taps({ count: 3, answer: "each" }), drawTake({ a: "#.#.#.#" })).of("fired");
  expect(fired.map(e => [e.count, e.edges.length])).toEqual([
    [1, 1],
    [2, 2],
    [3, 3],
    [1, 1],
  ]);
});
