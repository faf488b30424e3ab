import { expect, test } from "vitest";
import type { Stick } from "../kit/schema";
import { drawTake, play, sketchKit } from "../tests/strips";
import { countFrames } from "./inputColumns";

const plain = sketchKit("a", { patterns: [{ id: "p", name: "P", kind: "press", control: "a" }] });

test("a control goes down at pressAt and comes up below releaseAt; between the two it stays", () => {
  const kit = { ...plain, controls: [{ id: "a", name: "A", bindings: [], pressAt: 0.6, releaseAt: 0.3 }] };
  expect(play(kit, drawTake({ a: "0567543210" })).control("a")).toBe("..#####...");
  expect(play(plain, drawTake({ a: "0454445430" })).control("a")).toBe("..######..");
});

test("a release point that is not written is never above the press point", () => {
  const kit = { ...plain, controls: [{ id: "a", name: "A", bindings: [], pressAt: 0.2 }] };
  expect(play(kit, drawTake({ a: "0121" })).control("a")).toBe("..#.");
});

test.each([
  [
    "fractions land on the next frame",
    [
      [1.2, 1],
      [3.9, 0],
    ],
    "..##....",
  ],
  [
    "a tap within one frame is kept, one frame long",
    [
      [2.1, 1],
      [2.5, 0],
    ],
    "...#....",
  ],
  [
    "down, up and down again in one frame take three",
    [
      [2.1, 1],
      [2.2, 0],
      [2.3, 1],
      [6, 0],
    ],
    "...#.#..",
  ],
  [
    "what lands past the end is dropped",
    [
      [6.5, 1],
      [6.6, 0],
    ],
    ".......#",
  ],
  ["a change at the very end is dropped", [[7.5, 1]], "........"],
] as const)("%s", (_what, lane, expected) => {
  const take = { ...drawTake({ a: "........" }), lanes: { a: lane } };
  expect(play(plain, take).control("a")).toBe(expected);
});

test("a take at another rate is read at the kit's, and lasts as long", () => {
  const take = { ...drawTake({ a: "..####.." }), rate: 120 };
  expect(countFrames(take, 60)).toBe(4);
  expect(play(plain, take).control("a")).toBe(".##.");
});

test("lanes of unknown controls are passed over", () => {
  expect(play(plain, drawTake({ a: ".#", zz: "##" })).events.length).toBe(1);
});

function stick(opposites?: Stick["opposites"]) {
  return sketchKit("udlr", {
    sticks: [
      { id: "s", name: "S", up: "u", down: "d", left: "l", right: "r", ...(opposites ? { opposites } : {}) },
    ],
    patterns: [{ id: "p", name: "P", kind: "press", control: "r" }],
  });
}

test.each([
  [undefined, ".##.....#.", ".........."],
  ["latest", ".##.....#.", "...#####.."],
  ["first", ".########.", ".........."],
] as const)("opposites %s", (opposites, left, right) => {
  const run = play(stick(opposites), drawTake({ l: ".########.", r: "...#####.." }));
  expect([run.control("l"), run.control("r")]).toEqual([left, right]);
});

test.each(["neutral", "latest", "first"] as const)(
  "both pressed on one frame: neither counts under %s, until one is let go",
  opposites => {
    const run = play(stick(opposites), drawTake({ l: ".#####..", r: ".###...." }));
    expect([run.control("l"), run.control("r")]).toEqual(["....##..", "........"]);
  },
);

test("cleaning makes edges that patterns see", () => {
  expect(play(stick(), drawTake({ l: "...##...", r: ".######." })).phases("p")).toBe(".F=..F=.");
});
