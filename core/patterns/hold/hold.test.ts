import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { drawTake, play, sketchKit } from "../../tests/strips";

function hold(fields: object): Kit {
  const pattern = { id: "h", name: "H", kind: "hold", control: "a", for: "3f", fire: "reach", ...fields };
  return sketchKit("ab", { patterns: [pattern as Kit["patterns"][number]] });
}

test.each([
  ["one frame short lapses on the release", ".##.....", ".~~x...."],
  ["exactly the length fires on the frame of its release", ".###....", ".~~~F..."],
  ["one frame more is sustained", ".####...", ".~~~F..."],
  ["two frames more", ".#####..", ".~~~F=.."],
])("reach 3f: %s", (_what, a, expected) => {
  expect(play(hold({}), drawTake({ a })).phases("h")).toBe(expected);
});

test("a length of nothing fires on the first frame after the press", () => {
  expect(play(hold({ for: "0f" }), drawTake({ a: "#..##." })).phases("h")).toBe("~F.~F.");
});

test.each([
  ["too short", ".##....", ".~~x..."],
  ["the shortest", ".###...", ".~~~F.."],
  ["the longest", ".#####.", ".~~~~~F"],
  ["one over is judged while still down", ".######.", ".~~~~~~x"],
  ["one over, let go on that frame", ".######..", ".~~~~~~x."],
])("release 3f to 5f: %s", (_what, a, expected) => {
  expect(play(hold({ fire: "release", max: "5f" }), drawTake({ a })).phases("h")).toBe(expected);
});

test("repeats come at for + k × every while down", () => {
  expect(play(hold({ repeat: { every: "2f" } }), drawTake({ a: ".########.." })).phases("h")).toBe(
    ".~~~F=F=F..",
  );
});

test.each([
  ["on the press frame", "b on 1", ".#####.", ".#.....", ".x....."],
  ["while growing", "b on 3", ".#####.", "...#...", ".~~x..."],
  ["on the frame on which it would fire", "b on 4", ".#####.", "....#..", ".~~~x.."],
  ["after it fired without repeats nothing is left to cancel", "b on 5", ".#####.", ".....#.", ".~~~F=."],
  ["a cancel held from before does not act", "b early", ".#####.", "#######", ".~~~F=."],
])("cancel %s (%s)", (_what, _when, a, b, expected) => {
  expect(play(hold({ cancel: ["b"] }), drawTake({ a, b })).phases("h")).toBe(expected);
});

test("a cancel stops the repeats to come until the next press", () => {
  const run = play(
    hold({ cancel: ["b"], repeat: { every: "2f" } }),
    drawTake({ a: ".#######.####.", b: ".....#........" }),
  );
  expect(run.phases("h")).toBe(".~~~Fx...~~~F.");
});

test("100ms at 60 Hz is six frames: at least rounds up", () => {
  expect(play(hold({ for: "100ms" }), drawTake({ a: "########" })).phases("h")).toBe("~~~~~~F=");
  expect(play(hold({ for: "100.001ms" }), drawTake({ a: "########" })).phases("h")).toBe("~~~~~~~F");
});
