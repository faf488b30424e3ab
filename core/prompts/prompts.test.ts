import { expect, test } from "vitest";
import type { Kit, Prompt } from "../kit/schema";
import { createInputCursor, loadInput, readTake } from "../input/inputColumns";
import { createState } from "../program/state";
import { step } from "../run/step";
import { drawTake, mustCompile, play, sketchKit } from "../tests/strips";
import { formatTrace } from "../trace/formatTrace";
import { createTrace } from "../trace/trace";

const ask: Kit["patterns"] = [
  { id: "pa", name: "A", kind: "press", control: "a" },
  { id: "pb", name: "B", kind: "press", control: "b" },
  { id: "ta", name: "Tap A", kind: "tap", control: "a", max: "9f" },
];

function kit(prompt: Partial<Prompt>, rest: Partial<Kit> = {}): Kit {
  const base: Prompt = { id: "p", name: "P", ask: ["pa"], starts: { at: "2f" }, window: "4f" };
  return sketchKit("ab", {
    gates: [
      { id: "g", name: "G" },
      { id: "o", name: "O" },
    ],
    patterns: ask,
    prompts: [{ ...base, ...prompt }],
    ...rest,
  });
}

/** Formats the events of prompts: frame, id, outcome and reason. */
const format = (run: ReturnType<typeof play>) =>
  run.of("prompt").map(e => [e.f, e.id, e.outcome, e.why].filter(x => x !== undefined).join(" "));

test.each([
  ["on the first frame of the window", "..#.......", "2 p ok"],
  ["on the last", "......#...", "6 p ok"],
  ["one frame late", ".......#..", "7 p failed too-late"],
  ["a press from before does not answer", ".#........", "7 p failed too-late"],
])("an answer %s", (_what, a, last) => {
  expect(format(play(kit({}), drawTake({ a })))).toEqual(["2 p shown", "2 p open", last]);
});

test("lead: shown first, open when it has passed", () => {
  expect(format(play(kit({ lead: "3f" }), drawTake({ a: "........#......" })))).toEqual([
    "2 p shown",
    "5 p open",
    "8 p ok",
  ]);
});

test.each([
  ["ignore", "...#...#......", ["7 p ok"]],
  ["fail", "...#...#......", ["3 p failed too-early"]],
  ["fail", "..#...........", ["2 p failed too-early"]],
  ["fail", ".....#........", ["5 p ok"]],
] as const)("early %s, pressed at %s", (early, a, outcomes) => {
  expect(format(play(kit({ lead: "3f", early }), drawTake({ a }))).slice(-1)).toEqual(outcomes);
});

test("allow: edges from the showing on count, the fire itself must lie in the window", () => {
  const tap = kit({ lead: "3f", early: "allow", ask: ["ta"] });
  expect(format(play(tap, drawTake({ a: "...####......." })))).toEqual(["2 p shown", "5 p open", "7 p ok"]);
  expect(format(play(tap, drawTake({ a: ".######......." }))).at(-1)).toBe("10 p failed too-late");
  const strict = kit({ lead: "3f", ask: ["ta"] });
  expect(format(play(strict, drawTake({ a: "...####......." }))).at(-1)).toBe("10 p failed too-late");
});

test("wrong presses fail, unless an answer comes on the same frame", () => {
  const strict = kit({ wrong: "fail", wrongOn: ["b"] });
  expect(format(play(strict, drawTake({ a: "....#.....", b: "...#......" }))).at(-1)).toBe(
    "3 p failed wrong",
  );
  expect(format(play(strict, drawTake({ a: "....#.....", b: "....#....." }))).at(-1)).toBe("4 p ok");
  expect(format(play(strict, drawTake({ a: "....#.....", b: ".#........" }))).at(-1)).toBe("4 p ok");
});

test("grades: the first that covers how far the answer is from the target, either way", () => {
  const graded = kit({
    window: "9f",
    target: "4f",
    grades: [
      { name: "gold", within: "1f" },
      { name: "silver", within: "3f" },
    ],
  });
  const outcomes = [2, 3, 5, 7, 9, 10].map(
    f =>
      format(play(graded, drawTake({ a: "#".padStart(f + 1, ".").padEnd(14, ".") })))
        .at(-1)!
        .split(" ")[2],
  );
  expect(outcomes).toEqual(["ok", "silver", "gold", "gold", "silver", "ok"]);
});

test("a gate starts it on each opening, not while it is showing; after a time-out on that very frame it may be shown", () => {
  const byGate = kit({ starts: { gate: "g" }, window: "3f" });
  const take = drawTake({ a: "............" }, { g: "##.#..#####." });
  expect(format(play(byGate, take))).toEqual([
    "0 p shown",
    "0 p open",
    "4 p failed too-late",
    "6 p shown",
    "6 p open",
    "10 p failed too-late",
  ]);
  const again = drawTake({ a: ".........." }, { g: "#...#....." });
  expect(format(play(byGate, again)).slice(2, 5)).toEqual(["4 p failed too-late", "4 p shown", "4 p open"]);
});

test("one prompt follows another on the frame after its outcome", () => {
  const first: Prompt = { id: "p", name: "P", ask: ["pa"], starts: { at: "1f" }, window: "3f" };
  const follows = (on: "success" | "failure" | "any"): Prompt => ({
    id: on,
    name: on,
    ask: ["pb"],
    starts: { prompt: "p", on },
    window: "2f",
  });
  const prompts = [first, follows("success"), follows("failure"), follows("any")];
  const won = format(play(kit({}, { prompts }), drawTake({ a: "..#.......", b: "" })));
  expect(won.filter(words => words.includes("shown"))).toEqual([
    "1 p shown",
    "3 success shown",
    "3 any shown",
  ]);
  const lost = format(play(kit({}, { prompts }), drawTake({ a: "..........", b: "" })));
  expect(lost.filter(words => words.includes("shown"))).toEqual([
    "1 p shown",
    "6 failure shown",
    "6 any shown",
  ]);
});

test("an answer's edges are taken for good: no move uses them, and their request replaces no other", () => {
  const moves: Kit["moves"] = [
    { id: "m", name: "M", pattern: "pa", buffer: "9f", needs: [{ gate: "g" }] },
    { id: "late", name: "Late", pattern: "ta", needs: [{ gate: "g" }] },
  ];
  const run = play(kit({}, { moves }), drawTake({ a: "#..###....." }));
  expect(run.of("lost").map(e => [e.f, e.id, e.made, e.why])).toEqual([
    [1, "late", 1, "gate:g"],
    [3, "m", 3, "prompt"],
    [6, "late", 6, "prompt"],
    [9, "m", 0, "gate:g"],
  ]);
});

test("while its window is open a prompt hides captured controls from all patterns that do not answer it", () => {
  const run = play(
    kit({ captures: ["a", "b"], starts: { gate: "g" } }),
    drawTake({ a: ".#....#.#", b: "..#.....#" }, { g: "..######." }),
  );
  expect(
    run
      .of("fired")
      .filter(e => e.id === "pb")
      .map(e => e.f),
  ).toEqual([8]);
  expect(
    run
      .of("fired")
      .filter(e => e.id === "pa")
      .map(e => e.f),
  ).toEqual([1, 6, 8]);
});

test("its gate is open on the frames after those at whose end its window was open", () => {
  const run = play(kit({ opens: "o" }), drawTake({ a: "....#....." }));
  expect(run.of("gate")).toEqual([
    { f: 3, kind: "gate", id: "o", open: true },
    { f: 5, kind: "gate", id: "o", open: false },
  ]);
});

test("a prompt whose mode ends fails, and one whose time comes in another mode is never shown", () => {
  const modes = [
    { id: "x", name: "X" },
    { id: "y", name: "Y" },
  ];
  const switches: Kit["switches"] = [{ when: { gate: "g", turns: "open" }, to: "y" }];
  const own = format(
    play(
      kit({ modes: ["x"] }, { modes, switches }),
      drawTake({ a: "..........", b: "" }, { g: "....######" }),
    ),
  );
  expect(own).toEqual(["2 p shown", "2 p open", "4 p failed mode"]);
  const other = format(
    play(
      kit({ modes: ["y"] }, { modes, switches }),
      drawTake({ a: "..........", b: "" }, { g: "....######" }),
    ),
  );
  expect(other).toEqual([]);
});

test("a frozen clock holds the window open; a prompt on the real clock runs out", () => {
  const speed: [number, number][] = [
    [0, 100],
    [3, 0],
  ];
  expect(format(play(kit({}), drawTake({ a: "............#" }, {}, speed))).at(-1)).toBe("12 p ok");
  expect(format(play(kit({ clock: "real" }), drawTake({ a: "............#" }, {}, speed))).at(-1)).toBe(
    "7 p failed too-late",
  );
});

test("the edges that answers took are forgotten once no fire can have them: the list stays short however many there were", () => {
  const program = mustCompile(
    kit(
      { starts: { gate: "g" }, window: "9f", ask: ["pa", "ta"] },
      { moves: [{ id: "m", name: "M", pattern: "pa", buffer: "6f", needs: [{ gate: "o" }], again: "held" }] },
    ),
  );
  const rounds = 500;
  const take = drawTake({ a: "...##.......".repeat(rounds) }, { g: ".##.........".repeat(rounds) });
  const cursor = createInputCursor(program, readTake(program, take));
  const state = createState(program);
  const trace = createTrace(60);
  let most = 0;
  for (let f = 0; f < take.frames; f++) {
    step(program, state, loadInput(cursor, f), trace);
    most = Math.max(most, state.takenCount);
  }
  const events = formatTrace(program, trace).events;
  expect(events.filter(e => e.kind === "prompt" && e.outcome === "ok")).toHaveLength(rounds);
  expect(events.filter(e => e.kind === "lost" && e.why === "prompt")).toHaveLength(rounds);
  expect(most).toBeLessThan(4);
});

test("an edge taken early in a chain is still taken when the chain fires much later, and other answers came between", () => {
  const chain: Kit["patterns"][number] = {
    id: "three",
    name: "Three",
    kind: "taps",
    control: "a",
    count: 3,
    gap: "9f",
    answer: "nth",
  };
  const run = play(
    kit(
      {},
      {
        patterns: [...ask, chain],
        moves: [{ id: "m", name: "M", pattern: "three" }],
        prompts: [
          { id: "p", name: "P", ask: ["pa"], starts: { at: "0f" }, window: "4f" },
          { id: "q", name: "Q", ask: ["pb"], starts: { at: "0f" }, window: "40f" },
        ],
      },
    ),
    drawTake({ a: ".#....#....#.....", b: ".........#......." }),
  );
  expect(run.of("lost")).toEqual([{ f: 11, kind: "lost", id: "m", made: 11, why: "prompt" }]);
});

test("an edge stays taken for a chain that fires on the frame of another answer", () => {
  const first: Prompt = { id: "p", name: "P", ask: ["pa"], starts: { at: "0f" }, window: "3f" };
  const second: Prompt = { id: "q", name: "Q", ask: ["pb"], starts: { at: "4f" }, window: "9f" };
  const run = play(
    kit(
      {},
      {
        patterns: [
          ...ask,
          { id: "twice", name: "Twice", kind: "taps", control: "a", count: 3, gap: "3f", answer: "final" },
        ],
        moves: [{ id: "m", name: "M", pattern: "twice", buffer: "4f" }],
        prompts: [first, second],
      },
    ),
    // The chain ends on frame 8 and fires there, with the press of frame 1 that answered P.
    drawTake({ a: ".#..#.........", b: "........#....." }),
  );
  expect(format(run).filter(words => words.endsWith("ok"))).toEqual(["1 p ok", "8 q ok"]);
  expect(run.of("lost")).toEqual([{ f: 8, kind: "lost", id: "m", made: 8, why: "prompt" }]);
});
