import { expect, test } from "vitest";
import type { Kit, Move } from "../kit/schema";
import { drawTake, play, sketchKit } from "../tests/strips";

const press = (id: string, control: string): Kit["patterns"][number] => ({
  id,
  name: id,
  kind: "press",
  control,
});

function hop(fields: Partial<Move>, rest: Partial<Kit> = {}): Kit {
  return sketchKit("ab", {
    gates: [
      { id: "g", name: "G" },
      { id: "n", name: "N" },
    ],
    patterns: [press("pa", "a"), press("pb", "b")],
    moves: [{ id: "hop", name: "Hop", pattern: "pa", needs: [{ gate: "g" }], ...fields }],
    ...rest,
  });
}

test.each([
  ["open: performed at once", {}, "..#.......", "##########", "..d......."],
  ["closed: lost at the end of that frame", {}, "..#.......", "..........", "..L......."],
  ["buffer, one frame inside", { buffer: "3f" }, "..#.......", "....######", "....b....."],
  ["buffer, exactly", { buffer: "3f" }, "..#.......", ".....#####", ".....b...."],
  ["buffer, one frame late", { buffer: "3f" }, "..#.......", "......####", ".....L...."],
  ["coyote, exactly", { needs: [{ gate: "g", coyote: "3f" }] }, "......#...", "####......", "......c..."],
  [
    "coyote, one frame late",
    { needs: [{ gate: "g", coyote: "3f" }] },
    ".......#..",
    "####......",
    ".......L..",
  ],
  [
    "no coyote before the gate was ever open",
    { needs: [{ gate: "g", coyote: "9f" }] },
    "..#.......",
    ".....#####",
    "..L.......",
  ],
  ["deferred: not before its time", { defer: "3f" }, "..#.......", "##########", ".....d...."],
  [
    "deferred, then buffered from there",
    { defer: "2f", buffer: "3f" },
    "..#.......",
    ".......###",
    ".......b..",
  ],
  [
    "deferred, one frame past its buffer",
    { defer: "2f", buffer: "3f" },
    "..#.......",
    "........##",
    ".......L..",
  ],
] as const)("%s", (_what, fields, a, g, expected) => {
  expect(play(hop(fields), drawTake({ a }, { g })).move("hop")).toBe(expected);
});

test("both: buffered, and its need met only by coyote", () => {
  const kit = hop({ needs: [{ gate: "g", coyote: "4f" }, { gate: "n" }], buffer: "4f" });
  const run = play(kit, drawTake({ a: "...#......" }, { g: "##........", n: ".....#####" }));
  expect(run.of("performed")).toEqual([
    { f: 5, kind: "performed", id: "hop", made: 3, waited: 2, by: "both" },
  ]);
});

test.each([
  ["needs in order, the first that is not met", { needs: [{ gate: "n" }, { gate: "g" }] }, {}, "gate:n"],
  ["a ban", { needs: [], bans: ["g"] }, { g: "######" }, "ban:g"],
  ["a need before a ban", { needs: [{ gate: "n" }], bans: ["g"] }, { g: "######" }, "gate:n"],
] as const)("the reason of a loss: %s", (_what, fields, gates, why) => {
  expect(play(hop(fields), drawTake({ a: "..#..." }, gates)).of("lost")).toEqual([
    { f: 2, kind: "lost", id: "hop", made: 2, why },
  ]);
});

test("late: a jump of the clock past the buffer with nothing else in the way", () => {
  const kit = hop({ needs: [], bans: ["n"], buffer: "2f" });
  const run = play(
    kit,
    drawTake({ a: "..#......" }, { n: "###......" }, [
      [0, 100],
      [3, 400],
    ]),
  );
  expect(run.of("lost")).toMatchObject([{ f: 3, why: "late" }]);
});

test("cooldown counts from the performance and ends on the frame that reaches it", () => {
  const run = play(hop({ needs: [], cooldown: "4f" }), drawTake({ a: "#..#.#.#.#" }));
  expect(run.move("hop")).toBe("d..L.d.L.d");
  expect(run.of("lost").map(e => e.why)).toEqual(["cooldown", "cooldown"]);
});

test("uses run out and come back while the refill is open", () => {
  const kit = hop({ needs: [], uses: { max: 2, refill: "g" } });
  const run = play(kit, drawTake({ a: "#.#.#.#.#.#" }, { g: "......#...." }));
  expect(run.move("hop")).toBe("d.d.L.d.d.L");
  expect(run.of("lost").map(e => e.why)).toEqual(["uses", "uses"]);
});

test("a spent gate meets no need until it was closed, and its coyote then starts at 0", () => {
  const kit = hop({ needs: [{ gate: "g", coyote: "9f" }], spends: ["g"] });
  expect(play(kit, drawTake({ a: "#.#..#..#..." }, { g: "####...#####" })).move("hop")).toBe("d.L..L..d...");
});

test("spentFor ends the spending while the gate stays open", () => {
  const kit = hop(
    { spends: ["g"] },
    {
      gates: [
        { id: "g", name: "G", spentFor: "4f" },
        { id: "n", name: "N" },
      ],
    },
  );
  expect(play(kit, drawTake({ a: "#.#.#.#.#" }, { g: "#########" })).move("hop")).toBe("d.L.d.L.d");
  expect(play(hop({ spends: ["g"] }), drawTake({ a: "#......#.." }, { g: "##########" })).move("hop")).toBe(
    "d......L..",
  );
  expect(play(hop({ spends: ["g"] }), drawTake({ a: "#.......#." }, { g: "##########" })).move("hop")).toBe(
    "d.......d.",
  );
});

test("bans ignore spending", () => {
  const kit = hop(
    { spends: ["g"] },
    {
      moves: [
        { id: "hop", name: "Hop", pattern: "pa", spends: ["g"] },
        { id: "duck", name: "Duck", pattern: "pb", bans: ["g"] },
      ],
    },
  );
  expect(play(kit, drawTake({ a: "#....", b: ".#..." }, { g: "#####" })).of("lost")).toMatchObject([
    { id: "duck", why: "ban:g" },
  ]);
});

test("newest: a new request replaces an older one in its slot, if it can be buffered", () => {
  const run = play(hop({ buffer: "5f" }), drawTake({ a: "#.#....." }, { g: "....####" }));
  expect(run.of("lost")).toEqual([{ f: 2, kind: "lost", id: "hop", made: 0, why: "replaced" }]);
  expect(run.of("performed")).toMatchObject([{ f: 4, made: 2 }]);
});

test("a press that cannot be buffered does not replace one that is", () => {
  const moves: Move[] = [
    { id: "hop", name: "Hop", pattern: "pa", needs: [{ gate: "g" }], buffer: "5f" },
    { id: "duck", name: "Duck", pattern: "pb", needs: [{ gate: "n" }] },
  ];
  const take = drawTake({ a: "#.......", b: "..#....." }, { g: "....####" });
  expect(play(hop({}, { moves }), take).move("hop")).toBe("....b...");
  const open = drawTake({ a: "#.......", b: "..#....." }, { g: "....####", n: "########" });
  expect(play(hop({}, { moves }), open).of("lost")).toMatchObject([{ id: "hop", why: "replaced" }]);
});

test("all: every request waits its turn, the newest first, one a frame in a slot", () => {
  const run = play(
    hop({ buffer: "9f" }, { queue: "all" }),
    drawTake({ a: "#.#......." }, { g: "....######" }),
  );
  expect(run.of("performed").map(e => [e.f, e.made])).toEqual([
    [4, 2],
    [5, 0],
  ]);
});

test("priority, then newest, then first in the kit; the loser of a slot waits or is lost as busy", () => {
  const moves: Move[] = [
    { id: "low", name: "Low", pattern: "pa", buffer: "3f" },
    { id: "high", name: "High", pattern: "pb", priority: 1 },
  ];
  const take = drawTake({ a: "..#...", b: "..#..." });
  expect(
    play(hop({}, { moves }), take)
      .of("performed")
      .map(e => [e.f, e.id]),
  ).toEqual([
    [2, "high"],
    [3, "low"],
  ]);
  const busy: Move[] = [
    { id: "low", name: "Low", pattern: "pa" },
    { id: "high", name: "High", pattern: "pb", priority: 1 },
  ];
  expect(play(hop({}, { moves: busy }), take).of("lost")).toEqual([
    { f: 2, kind: "lost", id: "low", made: 2, why: "busy" },
  ]);
  const slots: Move[] = [
    { id: "low", name: "Low", pattern: "pa" },
    { id: "high", name: "High", pattern: "pb", slot: "feet" },
  ];
  expect(
    play(hop({}, { moves: slots }), take)
      .of("performed")
      .map(e => e.id),
  ).toEqual(["low", "high"]);
});

test("one press, one move: the rivals for its edge are beaten, unless they share", () => {
  const rivals = (shares: boolean): Move[] => [
    { id: "one", name: "One", pattern: "pa", slot: "x" },
    { id: "two", name: "Two", pattern: "pa", slot: "y", ...(shares ? { shares } : {}) },
  ];
  const take = drawTake({ a: "..#..." });
  expect(play(hop({}, { moves: rivals(false) }), take).of("lost")).toEqual([
    { f: 2, kind: "lost", id: "two", made: 2, why: "beaten" },
  ]);
  expect(
    play(hop({}, { moves: rivals(true) }), take)
      .of("performed")
      .map(e => e.id),
  ).toEqual(["one", "two"]);
});

test("when: a count exactly, a level at least", () => {
  const kit = hop(
    {},
    {
      patterns: [
        { id: "pa", name: "A", kind: "taps", control: "a", count: 3, gap: "4f", answer: "each" },
        {
          id: "pb",
          name: "B",
          kind: "charge",
          control: "b",
          full: "6f",
          fire: "release",
          levels: [
            { name: "1", at: "2f" },
            { name: "2", at: "4f" },
          ],
        },
      ],
      moves: [
        { id: "twice", name: "Twice", pattern: "pa", when: { count: 2 } },
        { id: "strong", name: "Strong", pattern: "pb", when: { level: 2 } },
      ],
    },
  );
  const run = play(kit, drawTake({ a: "#.#.#.......", b: "###..#####.." }));
  expect(run.of("performed").map(e => [e.id, e.f])).toEqual([
    ["twice", 2],
    ["strong", 10],
  ]);
});

test("a frozen clock keeps a buffered press, the real clock does not", () => {
  const speed: [number, number][] = [
    [0, 100],
    [3, 0],
    [20, 100],
  ];
  const take = drawTake({ a: "..#..................." }, { g: "....................##" }, speed);
  expect(play(hop({ buffer: "3f" }), take).of("performed")).toMatchObject([
    { f: 20, waited: 18, by: "buffer" },
  ]);
  expect(play(hop({ buffer: "3f", clock: "real" }), take).of("lost")).toMatchObject([
    { f: 5, why: "gate:g" },
  ]);
});
