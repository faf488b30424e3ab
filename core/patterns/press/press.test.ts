import { expect, test } from "vitest";
import { drawTake, play, sketchKit } from "../../tests/strips";

const repeating = (after: string, every: string) =>
  sketchKit("a", {
    patterns: [{ id: "p", name: "P", kind: "press", control: "a", repeat: { after, every } }],
  });

test("a press fires on each press edge and is sustained while the control is down", () => {
  const kit = sketchKit("a", { patterns: [{ id: "p", name: "P", kind: "press", control: "a" }] });
  const run = play(kit, drawTake({ a: ".##..#.##" }));
  expect(run.phases("p")).toBe(".F=..F.F=");
  expect(run.of("fired").map(e => e.repeat)).toEqual([0, 0, 0]);
});

test.each([
  ["4f", "2f", "#########..", "F===F=F=F.."],
  ["3f", "5f", "#########..", "F==F====F.."],
  ["0f", "3f", "########", "F==F==F="],
])("after %s, then every %s", (after, every, a, expected) => {
  expect(play(repeating(after, every), drawTake({ a })).phases("p")).toBe(expected);
});

test("no repeat on the frame on which the control comes up", () => {
  expect(play(repeating("4f", "2f"), drawTake({ a: "####..." })).phases("p")).toBe("F===...");
});

test("repeats are counted from the press, and their edge is the press", () => {
  const fired = play(repeating("2f", "2f"), drawTake({ a: ".#####..##" })).of("fired");
  expect(fired.map(e => [e.f, e.repeat, e.edges])).toEqual([
    [1, 0, [["a", 1]]],
    [3, 1, [["a", 1]]],
    [5, 2, [["a", 1]]],
    [8, 0, [["a", 8]]],
  ]);
});

test("two marks passed on one frame fire once, and the skipped one is not repeated", () => {
  const take = drawTake({ a: "##########" }, {}, [
    [0, 100],
    [3, 400],
    [4, 100],
  ]);
  // Ages 0 1 2 6 7 8 9: marks 2, 4 and 6, the last two on frame 3.
  expect(play(repeating("2f", "2f"), take).phases("p")).toBe("F=FF=F=F=F");
});

test("a frozen game clock holds repeats back but not edges; the real clock goes on", () => {
  const take = drawTake({ a: ".####.##" }, {}, [[0, 0]]);
  expect(play(repeating("1f", "1f"), take).phases("p")).toBe(".F===.F=");
  const real = sketchKit("a", {
    patterns: [
      {
        id: "p",
        name: "P",
        kind: "press",
        control: "a",
        clock: "real",
        repeat: { after: "1f", every: "1f" },
      },
    ],
  });
  expect(play(real, take).phases("p")).toBe(".FFFF.FF");
});
