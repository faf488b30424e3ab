import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { drawTake, play, sketchKit } from "../../tests/strips";

function charge(fields: object): Kit {
  const pattern = {
    id: "c",
    name: "C",
    kind: "charge",
    control: "a",
    full: "4f",
    fire: "release",
    ...fields,
  };
  return sketchKit("ab", { patterns: [pattern as Kit["patterns"][number]] });
}

test("a release fire carries age, ratio, level and value, clamped at full", () => {
  const kit = charge({
    from: "2f",
    levels: [
      { name: "low", at: "2f" },
      { name: "high", at: "4f" },
    ],
    output: [10, 20],
  });
  const fired = play(kit, drawTake({ a: "#..##..###..####..######." })).of("fired");
  expect(fired.map(e => [e.age, e.ratio, e.level, e.value])).toEqual([
    [1, 0, 0, 10],
    [2, 0, 1, 10],
    [3, 0.5, 1, 15],
    [4, 1, 2, 20],
    [6, 1, 2, 20],
  ]);
});

test.each([
  ["release, below min", { min: "3f" }, ".##...", ".~~x.."],
  ["release, exactly min", { min: "3f" }, ".###..", ".~~~F."],
  ["full, let go one frame early", { fire: "full" }, ".###...", ".~~~x.."],
  ["full, exactly, fires on the release frame", { fire: "full" }, ".####..", ".~~~~F."],
  ["full, held on", { fire: "full" }, ".#######", ".~~~~F=="],
  ["either, let go first", { fire: "either" }, ".##....", ".~~F..."],
  ["either, full first, once only", { fire: "either" }, ".######.", ".~~~~F=."],
  ["limit, at it", { limit: "5f" }, ".#####.", ".~~~~~F"],
  ["limit, one over", { limit: "5f" }, ".######.", ".~~~~~~x"],
  ["limit wins over full on one frame", { fire: "full", limit: "3f" }, ".######.", ".~~~~x.."],
])("%s", (_what, fields, a, expected) => {
  expect(play(charge(fields), drawTake({ a })).phases("c")).toBe(expected);
});

test("a cancel ends the charge, and the release after it fires nothing", () => {
  expect(play(charge({ cancel: ["b"] }), drawTake({ a: ".#####..", b: "...#...." })).phases("c")).toBe(
    ".~~x....",
  );
});

test.each([
  ["ease-in", 0.315357],
  ["cubic-bezier(0.25, 0.1, 0.25, 1)", 0.802403],
  ["linear(0, 0.2 50%, 1)", 0.2],
  ["steps(4)", 0.5],
])("curve %s at half the time", (curve, value) => {
  const [fired] = play(charge({ curve }), drawTake({ a: "##..." })).of("fired");
  expect(fired?.ratio).toBe(0.5);
  expect(fired?.value).toBeCloseTo(value, 5);
});
