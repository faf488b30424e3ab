import { expect, test } from "vitest";
import type { Gate, Kit, Move } from "../kit/schema";
import { drawTake, play, sketchKit } from "../tests/strips";

/** Draws the opens and closes of a gate as a strip. */
function strip(run: ReturnType<typeof play>, id: string): string {
  let isOpen = false;
  return Array.from({ length: run.trace.frames }, (_, f) => {
    const event = run.of("gate").find(e => e.f === f && e.id === id);
    if (event) isOpen = event.open;
    return isOpen ? "#" : ".";
  }).join("");
}

const gate = (id: string, fields: Partial<Gate> = {}): Gate => ({ id, name: id, ...fields });

function kitWith(gates: Gate[], rest: Partial<Kit> = {}): Kit {
  return sketchKit("ab", {
    gates,
    patterns: [{ id: "p", name: "P", kind: "hold", control: "a", for: "2f", fire: "reach" }],
    ...rest,
  });
}

test("derived gates follow those above them on the same frame", () => {
  const kit = kitWith([
    gate("x"),
    gate("y"),
    gate("both", { all: ["x", "y"] }),
    gate("either", { any: ["x", "y"] }),
    gate("neither", { none: ["x", "y"] }),
  ]);
  const run = play(kit, drawTake({ a: "........" }, { x: ".####...", y: "..####.." }));
  expect(strip(run, "both")).toBe("..###...");
  expect(strip(run, "either")).toBe(".#####..");
  expect(strip(run, "neither")).toBe("#.....##");
});

test("a derived gate that is painted too is open then as well", () => {
  const run = play(
    kitWith([gate("x"), gate("d", { all: ["x"] })]),
    drawTake({ a: "......" }, { x: ".##...", d: "....#." }),
  );
  expect(strip(run, "d")).toBe(".##.#.");
});

test("while: open when the pattern was fired or sustained at the end of the frame before", () => {
  const run = play(kitWith([gate("w", { while: "p" })]), drawTake({ a: ".#####...." }));
  expect(run.phases("p")).toBe(".~~F==....");
  expect(strip(run, "w")).toBe("....###...");
});

test("of several paints on one frame the last counts", () => {
  const take = {
    ...drawTake({ a: "......" }),
    gates: {
      x: [
        [1.2, 1],
        [1.4, 0],
        [3.1, 1],
      ] as [number, 0 | 1][],
    },
  };
  expect(strip(play(kitWith([gate("x")]), take), "x")).toBe("....##");
});

const swing = (fields: Partial<Move>): Move => ({ id: "m", name: "M", pattern: "q", ...fields });
const pressB: Kit["patterns"] = [{ id: "q", name: "Q", kind: "press", control: "b" }];

test("a move opens its gates from the first frame after it, and busy for as long as its frames last", () => {
  const frames = { startup: "2f", active: "1f", recovery: "2f" };
  const kit = kitWith([gate("w"), gate("busy:main")], {
    patterns: pressB,
    moves: [swing({ frames, opens: [{ gate: "w", from: "2f", to: "3f" }] })],
  });
  const run = play(kit, drawTake({ b: ".#........" }));
  expect(strip(run, "w")).toBe("...##.....");
  expect(strip(run, "busy:main")).toBe("..####....");
});

test.each([
  ["0f", "0f", "..#......."],
  ["0f", "2f", "..##......"],
  ["3f", "3f", "....#....."],
  ["90ms", "95ms", ".......#.."],
])("an opening from %s to %s is open for a frame at least", (from, to, expected) => {
  const run = play(
    kitWith([gate("w")], { patterns: pressB, moves: [swing({ opens: [{ gate: "w", from, to }] })] }),
    drawTake({ b: ".#........" }),
  );
  expect(strip(run, "w")).toBe(expected);
});

test("a new move in the slot puts an end to the timeline of the one before, even with none of its own", () => {
  const moves = [
    swing({ opens: [{ gate: "w", from: "1f", to: "9f" }] }),
    { id: "n", name: "N", pattern: "p" },
  ];
  const kit = kitWith([gate("w")], {
    moves,
    patterns: [...pressB, { id: "p", name: "P", kind: "press", control: "a" }],
  });
  expect(strip(play(kit, drawTake({ b: ".#........", a: "....#....." })), "w")).toBe("..###.....");
});
