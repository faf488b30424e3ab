import fc from "fast-check";
import { expect, test } from "vitest";
import type { Kit, Step } from "../../kit/schema";
import { searchAllChoices, type Seen, type SlowEvent } from "../../tests/slowSearch";
import { drawTake, mustCompile, play, sketchKit } from "../../tests/strips";
import type { SequenceProgram } from "./program";

const STICK = { id: "s", name: "S", up: "u", down: "d", left: "l", right: "r" };

function sequence(steps: readonly Step[], fields: object = {}, kit: Partial<Kit> = {}): Kit {
  const pattern = { id: "q", name: "Q", kind: "sequence", steps, gap: "4f", ...fields };
  return sketchKit("abcudlr", { sticks: [STICK], patterns: [pattern as Kit["patterns"][number]], ...kit });
}

const AB: Step[] = [{ press: "a" }, { press: "b" }];

test.each([
  ["exactly at the gap", ".#......", ".....#..", ".~~~~F.."],
  ["one frame past it lapses", ".#.......", "......#..", ".~~~~~x.."],
  ["both on one frame", "..#.", "..#.", "..F."],
  ["a repeated first press does not mislead it", ".#.#...", "......#", ".~~~~~F"],
])("press, press within 4f: %s", (_what, a, b, expected) => {
  expect(play(sequence(AB), drawTake({ a, b })).phases("q")).toBe(expected);
});

test("of several choices the latest start counts", () => {
  const [fired] = play(sequence(AB), drawTake({ a: "#.#.#..", b: "......#" })).of("fired");
  expect(fired?.edges).toEqual([
    ["a", 4],
    ["b", 6],
  ]);
});

test("one edge serves one step: press and hold of one control take two presses", () => {
  const steps: Step[] = [{ press: "a" }, { hold: "a", for: "2f" }];
  expect(
    play(sequence(steps, { gap: "9f" }), drawTake({ a: "#####..###.." }))
      .of("fired")
      .map(e => e.f),
  ).toEqual([9]);
});

test("a hold step is still true on the frame of its release, and a release shares that frame", () => {
  const steps: Step[] = [
    { hold: "a", for: "3f" },
    { release: "a", after: "0f" },
  ];
  expect(play(sequence(steps), drawTake({ a: ".###...." })).phases("q")).toBe("....F...");
  expect(play(sequence(steps), drawTake({ a: ".##....." })).phases("q")).toBe("........");
});

test("after holds a step back, total bounds the whole", () => {
  const steps: Step[] = [{ press: "a" }, { press: "b", after: "3f" }];
  expect(
    play(sequence(steps), drawTake({ a: "#......", b: "..#.#.." }))
      .of("fired")
      .map(e => e.f),
  ).toEqual([4]);
  const three: Step[] = [{ press: "a" }, { press: "b" }, { press: "c" }];
  const take = drawTake({ a: "#.......", b: "...#....", c: "......#." });
  expect(play(sequence(three, { total: "6f" }), take).of("fired").length).toBe(1);
  expect(play(sequence(three, { total: "5f" }), take).of("lapsed")).toMatchObject([
    { f: 6, why: "too-slow", reached: 2 },
  ]);
});

test("others break: a press of another control breaks an attempt, a stick's four never do", () => {
  const kit = sequence(AB, { others: "break" });
  expect(play(kit, drawTake({ a: "#....", b: "...#.", c: ".#..." })).events).toMatchObject([
    { f: 1, why: "broken", reached: 1 },
  ]);
  expect(play(kit, drawTake({ a: "#....", b: "..#..", c: "..#.." })).events).toMatchObject([
    { f: 2, why: "broken", reached: 1 },
  ]);
  expect(
    play(kit, drawTake({ a: "#....", b: "...#.", u: ".#..." }))
      .of("fired")
      .map(e => e.f),
  ).toEqual([3]);
});

test("a cancel wins over the last step on one frame, and counts it as reached", () => {
  const run = play(sequence(AB, { cancel: ["c"] }), drawTake({ a: "#......", b: "..#....", c: "..#...." }));
  expect(run.events).toMatchObject([{ f: 2, kind: "lapsed", why: "cancelled", reached: 2 }]);
});

test("a motion: down, down-right, right and a button; edges name the stick", () => {
  const steps: Step[] = [{ dir: "s:2" }, { dir: "s:3" }, { dir: "s:6" }, { press: "a" }];
  const run = play(sequence(steps), drawTake({ d: ".####....", r: "...#####.", a: "......#.." }));
  expect(run.of("fired")).toMatchObject([
    {
      f: 6,
      edges: [
        ["s", 1],
        ["s", 3],
        ["s", 5],
        ["a", 6],
      ],
    },
  ]);
});

test("mirrored, left and right change places; a turn of the mirror is no edge", () => {
  const steps: Step[] = [{ dir: "s:6" }, { press: "a" }];
  const kit = sequence(
    steps,
    {},
    { sticks: [{ ...STICK, mirrorWhen: "m" }], gates: [{ id: "m", name: "M" }] },
  );
  const facing = drawTake({ l: "..###...", a: "....#..." }, { m: "########" });
  expect(
    play(kit, facing)
      .of("fired")
      .map(e => e.f),
  ).toEqual([4]);
  const turning = drawTake({ l: "..####..", a: ".....#.." }, { m: "...#####" });
  expect(play(kit, turning).of("fired")).toEqual([]);
});

test("a held direction is sustained until it changes", () => {
  const run = play(
    sequence([{ press: "a" }, { dir: "s:6", for: "2f" }]),
    drawTake({ a: "#.......", r: ".#####.." }),
  );
  expect(run.phases("q")).toBe("~~~F==..");
});

test("steps made while a fire is sustained count for what was reached only if they last to its end", () => {
  const steps = [{ release: "b" }, { hold: "b", for: "0f" }, { press: "a", gap: "0f" }];
  // Two steps of the next attempt are made on 5; a gap of nothing takes the second one away on 6, when `a` is still down.
  const run = play(sequence(steps), drawTake({ a: "...####.....", b: "###.#......." }));
  expect(run.phases("q")).toBe("...F===~~~x.");
  expect(run.events.at(-1)).toMatchObject({ f: 10, why: "too-slow", reached: 1 });
});

const gap = fc.integer({ min: 0, max: 6 }).map(n => `${n}f`);
const own = {
  gap: fc.option(gap, { nil: undefined }),
  after: fc.option(fc.constantFrom("0f", "1f", "3f"), { nil: undefined }),
};
const control = fc.constantFrom("a", "b");
const direction = fc.constantFrom("s:6", "s:3", "s:5", "s:4");
const anyStep = fc
  .oneof(
    fc.record({ press: control, ...own }),
    fc.record({ release: control, ...own }),
    fc.record({ hold: control, for: gap, ...own }),
    fc.record({ dir: direction, ...own }),
    fc.record({ dir: direction, for: gap, ...own }),
    fc.record({ together: fc.constant(["a", "b"]), within: gap, ...own }),
  )
  .map(step => JSON.parse(JSON.stringify(step)) as Step);

/** A strip of runs, so that presses have realistic lengths. */
const strip = fc
  .array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 6 })), { minLength: 6, maxLength: 10 })
  .map(runs =>
    runs
      .map(([isDown, length]) => (isDown ? "#" : ".").repeat(length))
      .join("")
      .padEnd(22, ".")
      .slice(0, 22),
  );

test("the same fires and lapses as a search of all choices", () => {
  let fires = 0;
  let lapses = 0;
  const arbitrary = fc.record({
    steps: fc.array(anyStep, { minLength: 1, maxLength: 4 }),
    total: fc.option(
      fc.integer({ min: 2, max: 14 }).map(n => `${n}f`),
      { nil: undefined },
    ),
    others: fc.constantFrom("ignore", "ignore", "break"),
    cancel: fc.constantFrom<string[]>([], [], ["c"]),
    lanes: fc.record({ a: strip, b: strip, c: strip, r: strip, d: strip }),
  });
  fc.assert(
    fc.property(arbitrary, ({ steps, total, others, cancel, lanes }) => {
      const kit = sequence(steps, { others, cancel, ...(total ? { total } : {}) });
      const program = mustCompile(kit);
      const pattern = program.patterns[0] as SequenceProgram;
      const down = program.controls.map(c =>
        [...((lanes as Record<string, string>)[c.id] ?? ".".repeat(22))].map(mark => mark === "#"),
      );
      const digits = down[4]!.map((isDown, f) => 5 + (down[6]![f] ? 1 : 0) - (isDown ? 3 : 0));
      const seen: Seen = { frames: 22, down, digits: pattern.sticks.map(() => digits) };
      const slow = searchAllChoices(pattern, seen);
      const word = ([id, frame]: readonly [string, number]) =>
        `${id === "s" ? "d0" : `p${"abcudlr".indexOf(id)}`}@${frame}`;
      const fast = play(kit, drawTake(lanes)).events.flatMap((e): SlowEvent[] => {
        if (e.kind === "fired")
          return [{ f: e.f, why: "fired", edges: e.edges.map(word), reached: steps.length }];
        return e.kind === "lapsed" ? [{ f: e.f, why: e.why, edges: [], reached: e.reached ?? -1 }] : [];
      });
      fires += fast.filter(e => e.why === "fired").length;
      lapses += fast.filter(e => e.why !== "fired").length;
      expect(fast).toEqual(slow);
    }),
    { numRuns: Number(process.env.RUNS ?? 600) },
  );
  expect(fires).toBeGreaterThan(50);
  expect(lapses).toBeGreaterThan(200);
});
