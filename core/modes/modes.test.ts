import { expect, test } from "vitest";
import type { Kit } from "../kit/schema";
import { createInputCursor, loadInput, readTake } from "../input/inputColumns";
import { createState, FIRED } from "../program/state";
import { step } from "../run/step";
import { drawTake, mustCompile, play, sketchKit } from "../tests/strips";
import { createTrace } from "../trace/trace";
import { expectWithin } from "../tests/expectWithin";

const hold = (modes: string[], fields: object = {}) =>
  ({
    id: "h",
    name: "H",
    kind: "hold",
    control: "a",
    for: "4f",
    fire: "reach",
    modes,
    ...fields,
  }) as Kit["patterns"][number];

/** A kit with two modes; the gate `air` switches to the second while it is open. */
function kit(patterns: Kit["patterns"], carry = false, rest: Partial<Kit> = {}): Kit {
  return sketchKit("ab", {
    gates: [{ id: "air", name: "Air" }],
    modes: [
      { id: "ground", name: "Ground" },
      { id: "sky", name: "Sky", carry },
    ],
    start: "ground",
    switches: [
      { when: { gate: "air", turns: "open" }, to: "sky" },
      { when: { gate: "air", turns: "closed" }, to: "ground" },
    ],
    patterns,
    ...rest,
  });
}

const AIR = { air: "....########" };

test("the mode is noted on frame 0 and on each change, and a switch by gate acts on the frame of the gate", () => {
  expect(
    play(kit([]), drawTake({}, { air: "...##..." }))
      .of("mode")
      .map(e => [e.f, e.id]),
  ).toEqual([
    [0, "ground"],
    [3, "sky"],
    [5, "ground"],
  ]);
  expect(
    play(kit([]), drawTake({}, { air: "##..." }))
      .of("mode")
      .map(e => [e.f, e.id]),
  ).toEqual([
    [0, "sky"],
    [2, "ground"],
  ]);
});

test("rules that are no longer active go idle: a forming pattern lapses because its mode is over", () => {
  const run = play(kit([hold(["ground"])]), drawTake({ a: "..##########" }, AIR));
  expect(run.of("lapsed")).toEqual([{ f: 4, kind: "lapsed", id: "h", why: "mode" }]);
  expect(run.phases("h")).toBe("..~~........");
});

test("a held button does not leak: newly active rules see it as up until it has been released", () => {
  const run = play(kit([hold(["sky"])]), drawTake({ a: "..#####.####" }, AIR));
  expect(run.phases("h")).toBe("........~~~~");
  const press = play(
    kit([{ id: "h", name: "H", kind: "press", control: "a", modes: ["sky"] }]),
    drawTake({ a: "....#..#" }, AIR),
  );
  expect(press.of("fired").map(e => e.f)).toEqual([4, 7]);
});

test.each([
  ["carried on, its age counting from the true press", "...#########", "....~~~F===="],
  ["due on the very frame of the switch: fires there", "#####.......", "....F......."],
  ["let go before the switch: never watched", ".##....#####", ".......~~~~F"],
])("carry: a hold of 4f %s", (_what, a, expected) => {
  expect(play(kit([hold(["sky"])], true), drawTake({ a }, AIR)).phases("h")).toBe(expected);
});

test("carry: a length reached before the switch does not fire again, but is sustained", () => {
  const run = play(kit([hold(["sky"])], true), drawTake({ a: "############" }, { air: "......######" }));
  expect(run.phases("h")).toBe("......======");
  expect(run.of("fired")).toEqual([]);
});

test("carry: repeats due after the switch come, counted from the press", () => {
  const pattern = {
    id: "h",
    name: "H",
    kind: "press",
    control: "a",
    modes: ["sky"],
    repeat: { after: "3f", every: "3f" },
  } as const;
  const run = play(kit([pattern], true), drawTake({ a: "############" }, AIR));
  expect(run.of("fired").map(e => [e.f, e.repeat])).toEqual([
    [6, 2],
    [9, 3],
  ]);
});

test("carry: a release on the frame of the switch is seen, with the true age", () => {
  const run = play(
    kit([{ id: "h", name: "H", kind: "tap", control: "a", max: "5f", modes: ["sky"] }], true),
    drawTake({ a: "..##........" }, AIR),
  );
  expect(run.of("fired")).toEqual([{ f: 4, kind: "fired", id: "h", edges: [["a", 2]] }]);
});

test("pending requests of a mode that is over are lost", () => {
  const moves: Kit["moves"] = [
    { id: "m", name: "M", pattern: "p", needs: [{ gate: "never" }], buffer: "9f", modes: ["ground"] },
  ];
  const gates = [
    { id: "air", name: "Air" },
    { id: "never", name: "Never" },
  ];
  const run = play(
    kit([{ id: "p", name: "P", kind: "press", control: "a" }], false, { moves, gates }),
    drawTake({ a: "..#........." }, AIR),
  );
  expect(run.of("lost")).toEqual([{ f: 4, kind: "lost", id: "m", made: 2, why: "mode" }]);
});

test("a switch by move acts on the frame after; the first switch that applies wins", () => {
  const moves: Kit["moves"] = [{ id: "m", name: "M", pattern: "p" }];
  const switches: Kit["switches"] = [
    { when: { move: "m" }, to: "sky" },
    { when: { gate: "air", turns: "open" }, to: "ground" },
  ];
  const patterns: Kit["patterns"] = [{ id: "p", name: "P", kind: "press", control: "a" }];
  const run = play(
    kit(patterns, false, { moves, switches }),
    drawTake({ a: "..#....." }, { air: "...##..." }),
  );
  expect(run.of("mode").map(e => [e.f, e.id])).toEqual([
    [0, "ground"],
    [3, "sky"],
  ]);
});

test("a pattern active in both modes continues", () => {
  expect(play(kit([hold(["ground", "sky"])]), drawTake({ a: "..##########" }, AIR)).phases("h")).toBe(
    "..~~~~F=====",
  );
});

test("captures hide a control in every mode in which the capturing pattern is active", () => {
  const patterns: Kit["patterns"] = [
    { id: "grab", name: "Grab", kind: "press", control: "a", captures: true, modes: ["sky"] },
    hold(["ground", "sky"]),
    { id: "p", name: "P", kind: "press", control: "b" },
  ];
  const run = play(kit(patterns), drawTake({ a: "..######.##.", b: "...#...#...." }, AIR));
  expect(run.of("lapsed")).toEqual([{ f: 4, kind: "lapsed", id: "h", why: "hidden" }]);
  expect(run.of("fired").map(e => [e.f, e.id])).toEqual([
    [3, "p"],
    [7, "p"],
    [9, "grab"],
  ]);
});

test.each([
  { kind: "release" },
  { kind: "tap", max: "20f" },
  { kind: "hold", for: "20f", fire: "reach" },
  { kind: "charge", full: "20f", fire: "release" },
  { kind: "taps", count: 2, gap: "20f", answer: "nth" },
  { kind: "mash", controls: ["a"], count: 2, within: "20f" },
  { kind: "sequence", steps: [{ press: "a" }, { press: "b" }], gap: "20f" },
] as const)("a lapse by hiding is over on the next frame: $kind", own => {
  const control = "controls" in own || "steps" in own ? {} : { control: "a" };
  const grown = sketchKit("abc", {
    patterns: [
      { id: "p", name: "P", ...control, ...own } as unknown as Kit["patterns"][number],
      { id: "q", name: "Q", kind: "press", control: "c" },
    ],
    prompts: [{ id: "r", name: "R", ask: ["q"], starts: { at: "4f" }, window: "8f", captures: ["a"] }],
  });
  expect(play(grown, drawTake({ a: ".#################", b: "", c: "" })).phases("p")).toMatch(/^\.~+x\.+$/);
});

test("after hiding, a control is seen as up until it has been released", () => {
  const patterns: Kit["patterns"] = [
    { id: "grab", name: "Grab", kind: "press", control: "a", captures: true, modes: ["sky"] },
    { id: "p", name: "P", kind: "press", control: "a" },
  ];
  const run = play(kit(patterns), drawTake({ a: "...###.#####.##" }, { air: "....#####......" }));
  expect(
    run
      .of("fired")
      .filter(e => e.id === "p")
      .map(e => e.f),
  ).toEqual([3, 13]);
});

test("cancel is not among the controls that captures take, but a captured cancel is not seen", () => {
  const patterns: Kit["patterns"] = [
    {
      id: "grab",
      name: "Grab",
      kind: "hold",
      control: "a",
      for: "9f",
      fire: "reach",
      cancel: ["b"],
      captures: true,
    },
    { id: "p", name: "P", kind: "press", control: "b" },
  ];
  expect(
    play(sketchKit("ab", { patterns }), drawTake({ a: "........", b: "..#....." }))
      .of("fired")
      .map(e => e.id),
  ).toEqual(["p"]);
  const hidden: Kit["patterns"] = [
    { id: "grab", name: "Grab", kind: "press", control: "b", captures: true },
    hold(["x"], { modes: undefined, cancel: ["b"] }),
  ].map(pattern => JSON.parse(JSON.stringify(pattern)) as Kit["patterns"][number]);
  expect(
    play(sketchKit("ab", { patterns: hidden }), drawTake({ a: ".######.", b: "...#...." })).phases("h"),
  ).toBe(".~~~~F=.");
});

test("hiding while a pattern was inactive does not end a press it is shown on activation", () => {
  const patterns: Kit["patterns"] = [
    { id: "grab", name: "Grab", kind: "press", control: "b", captures: true, modes: ["ground"] },
    { id: "both", name: "Both", kind: "chord", controls: ["a", "b"], modes: ["sky"] },
  ];
  const run = play(kit(patterns, true), drawTake({ a: "..##########", b: ".#.........." }, AIR));
  expect(run.of("lapsed")).toEqual([]);
  expect(run.phases("both")).toBe("....~~~~~~~~");
});

test("a rule with an empty list of modes is active in none, in a kit without modes too", () => {
  const patterns: Kit["patterns"] = [{ id: "p", name: "P", kind: "press", control: "a", modes: [] }];
  expect(play(sketchKit("a", { patterns }), drawTake({ a: "..#.." })).events).toEqual([]);
});

test("carry: its logs stay short, and a long press keeps its true age for any clock", () => {
  const program = mustCompile(
    kit([hold(["sky"], { for: "900f", clock: "game" })], true, {
      sticks: [{ id: "s", name: "S", up: "b", down: "b2", left: "l", right: "r", mirrorWhen: "air" }],
      controls: ["a", "b", "b2", "l", "r"].map(id => ({ id, name: id, bindings: [] })),
    }),
  );
  const frames = 4500;
  const press = 3000;
  const speed = Array.from({ length: frames }, (_, f): [number, number] => [f, f % 2 === 0 ? 100 : 50]);
  const strip = (mark: (f: number) => boolean) =>
    Array.from({ length: frames }, (_, f) => (mark(f) ? "#" : ".")).join("");
  const take = drawTake(
    { a: strip(f => f >= press) },
    { air: strip(f => (f > press ? f >= 3500 : f % 2 === 1)) },
    speed,
  );
  const cursor = createInputCursor(program, readTake(program, take));
  const state = createState(program);
  const trace = createTrace(60);
  let longest = 0;
  let ticks = 0;
  for (let f = 0; f < frames && state.phase[0] !== FIRED; f++) {
    if (f > press) ticks += speed[f]![1];
    step(program, state, loadInput(cursor, f), trace);
    longest = Math.max(longest, state.speedLog.length, state.mirrorLog.length);
  }
  expect(state.phase[0]).toBe(FIRED);
  expect(ticks).toBeGreaterThanOrEqual(90_000);
  expect(ticks).toBeLessThan(90_100);
  expect(longest).toBeLessThan(3 * 2100);
});

test("carry: an hour's press under a clock that changes on every frame is not slowed by its own log", () => {
  const program = mustCompile(kit([hold(["sky"])], true));
  const frames = 216_000;
  const take = { ...drawTake({ a: "#" }), frames, lanes: { a: [[0, 1]] as [number, number][] } };
  const columns = readTake(program, take);
  expectWithin(4000, () => {
    const state = createState(program);
    const trace = createTrace(60);
    const cursor = createInputCursor(program, columns);
    for (let f = 0; f < frames; f++) {
      const input = loadInput(cursor, f);
      input.speedPercent = f % 2 === 0 ? 100 : 50;
      step(program, state, input, trace);
    }
    expect(state.speedLog.length).toBe(3 * frames);
  });
});
