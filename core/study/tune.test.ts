import fc from "fast-check";
import { expect, test } from "vitest";
import { listStory } from "../checks/story";
import { readTake } from "../input/inputColumns";
import { compile } from "../kit/compile";
import { writeAt } from "../kit/editAt";
import type { Take } from "../input/takeSchema";
import type { Kit } from "../kit/schema";
import { evaluate, run } from "../run/run";
import { anyKit, anyTake } from "../tests/arbitraries";
import { drawTake, mustCompile, sketchKit } from "../tests/strips";
import { CHARACTERS, STILL } from "./hands/character";
import { fitCharacter } from "./hands/fitCharacter";
import { playHand } from "./hands/playHand";
import { studyHands } from "./hands/studyHands";
import { shareOf } from "./hands/wilson";
import { listDelays } from "./feel/delays";
import { formatMoveFeel, reportMoves } from "./feel/feelReport";
import { studyRooms, type RunFrom } from "./feel/rooms";
import { findOverlaps } from "./overlaps/findOverlaps";
import { alignStories } from "./rates/alignStories";
import { roundLengths } from "./rates/roundLengths";
import type { PrepareRun } from "./prepareRun";
import { readOutcomes } from "./outcomes/readOutcomes";
import { readOutcome } from "./sweep/readOutcome";
import { countedOf, writeSwept } from "./sweep/swept";
import { findEdges, sweepValues } from "./sweep/sweepValues";

/** A hop with a window around its gate, and a separate hold. */
const HOP = sketchKit("ab", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [
    { id: "p", name: "P", kind: "press", control: "a" },
    { id: "h", name: "H", kind: "hold", control: "b", for: "100ms", fire: "reach" },
  ],
  moves: [
    {
      id: "hop",
      name: "Hop",
      pattern: "p",
      needs: [{ gate: "ground", coyote: "2f" }],
      buffer: "3f",
      spends: ["ground"],
    },
    { id: "brace", name: "Brace", pattern: "h", slot: "arms" },
  ],
});
//                                     5    10   15   20   25   30
const TAKE = drawTake(
  { a: "......##.......##......##.........", b: "..########........................" },
  { ground: "........####........#####........." },
);

const prepare: PrepareRun = kit => {
  const compiled = compile(kit);
  return compiled.ok ? { program: compiled.value, run: columns => run(compiled.value, columns) } : undefined;
};

/** Runs the whole take for every shift, exactly as defined. */
const plainly =
  (kit: Kit): RunFrom =>
  columns => ({ runTo: frame => run(mustCompile(kit), { ...columns, frames: frame }) });

function finish<Y, R>(generator: Generator<Y, R>): R {
  let step = generator.next();
  while (!step.done) step = generator.next();
  return step.value;
}

function roomsOf(kit: Kit, take: typeof TAKE) {
  const program = mustCompile(kit);
  const columns = readTake(program, take);
  return finish(studyRooms(program, columns, readOutcomes(program, run(program, columns)), plainly(kit)));
}

test("the room of a press is how far it could have come earlier or later; a lost press has its miss", () => {
  const { rooms, misses } = roomsOf(HOP, TAKE);
  const short = rooms.map(({ frame, move, early, late }) => [frame, move, early, late]);
  // Buffered 3 frames before the ground: the press on 6 could come on 5. Its coyote reaches 13, but its
  // release would touch the next press: that side is bounded by the neighbour, as is the early side of the
  // press on 23 and both sides of the hold.
  expect(short).toEqual([
    [2, 1, 2, 23],
    [6, 0, 1, 6],
    [23, 0, 5, 3],
  ]);
  expect(rooms.map(({ isEarlyBounded, isLateBounded }) => [isEarlyBounded, isLateBounded])).toEqual([
    [true, true],
    [false, true],
    [true, false],
  ]);
  // The press on 6 spent the ground left on 12; the buffer for the ground of 20 starts on 17.
  expect(misses).toEqual([{ control: 0, frame: 15, move: 0, by: 2, saves: 0, isOfOpposite: false }]);
});

test("a press that counts as its opposite is let go has no room and no shift, and is among a move's presses", () => {
  const kit = sketchKit("udlr", {
    sticks: [{ id: "s", name: "S", up: "u", down: "d", left: "l", right: "r", opposites: "latest" }],
    gates: [{ id: "ground", name: "Ground" }],
    patterns: [{ id: "step", name: "Step", kind: "press", control: "l" }],
    moves: [{ id: "walk", name: "Walk", pattern: "step", needs: [{ gate: "ground" }] }],
  });
  const lanes = { l: ".##########.", r: "....##..##.." };
  const { rooms, misses } = roomsOf(kit, drawTake(lanes, { ground: "########...." }));
  expect(rooms.map(({ frame, isOfOpposite }) => [frame, isOfOpposite])).toEqual([
    [1, false],
    [6, true],
  ]);
  expect(misses).toEqual([
    { control: 2, frame: 10, move: 0, by: undefined, saves: undefined, isOfOpposite: true },
  ]);
});

test("a delay is split into recognition, buffer, and slowed time", () => {
  const program = mustCompile(HOP);
  const trace = evaluate(program, {
    ...TAKE,
    speed: [
      [3, 50],
      [5, 100],
    ],
  });
  const { requests } = readOutcomes(program, trace);
  const [brace, hop] = listDelays(program, trace, requests).sort((a, b) => a.press - b.press);
  expect(hop).toMatchObject({ move: 0, press: 6, frame: 8, total: 2, pattern: 0, memory: 2, slow: 0 });
  // Six frames of hold, two of them at half speed.
  expect(brace).toMatchObject({ move: 1, press: 2, total: 7, pattern: 6, memory: 0, slow: 1 });
  // Time passed unrecorded before frame 7, 9 or 10: how long the presses around it took is not known.
  const movesBeside = (gap: number) =>
    listDelays(program, trace, requests, [gap]).flatMap(({ move, press }) => (press <= 6 ? [move] : []));
  expect([2, 7, 9, 10].map(movesBeside)).toEqual([[0, 1], [], [0], [0, 1]]);
});

test("a report has one line per move, with the nearest loss and the tightest use", () => {
  const program = mustCompile(HOP);
  const trace = evaluate(program, TAKE);
  const { rooms, misses } = roomsOf(HOP, TAKE);
  const { counts, requests } = readOutcomes(program, trace);
  const delays = listDelays(program, trace, requests);
  const [hop, brace] = reportMoves(program, [
    { take: "drawn", counts, rooms, misses, onsets: [], delays },
  ]).map(feel => formatMoveFeel(feel, move => program.moves[move]!.id));
  expect(hop).toBe(
    "asked for 3 times: performed 2 times (1 by buffer), lost once; 1 press lost, the nearest by 2f; tightest use 1f; median delay 1f",
  );
  expect(brace).toBe("asked for once: performed once; no tight use; median delay 6f");
});

test("a share has the score interval of the textbook", () => {
  const rounded = (hits: number, n: number) => {
    const { low, high } = shareOf(hits, n);
    return [low, high].map(value => Math.round(value * 1e4) / 1e4);
  };
  expect(rounded(8, 10)).toEqual([0.4902, 0.9433]);
  expect(rounded(0, 10)).toEqual([0, 0.2775]);
  expect(rounded(200, 200)).toEqual([0.9812, 1]);
  expect(rounded(0, 0)).toEqual([0, 1]);
});

/** Lanes without releases of controls that are not held. */
const pressesOf = ({ lanes }: { readonly lanes: typeof TAKE.lanes }) =>
  Object.fromEntries(
    Object.entries(lanes).map(([id, lane]) => [
      id,
      lane.filter(([, value], k) => value > 0 || (k > 0 && lane[k - 1]![1] > 0)),
    ]),
  );

test("a hand without spread plays the take itself; every hand keeps the order, whole frames of length, and its own draws", () => {
  let moved = 0;
  fc.assert(
    fc.property(anyTake, fc.integer({ min: 0, max: 2 ** 31 }), (take, seed) => {
      const still = playHand(take, STILL, seed);
      expect({ ...still, lanes: pressesOf(still) }).toEqual({ ...take, lanes: pressesOf(take) });
      const played = playHand(take, CHARACTERS[2]!, seed);
      for (const [control, lane] of Object.entries(played.lanes)) {
        for (let k = 1; k < lane.length; k++) expect(lane[k]![0]).toBeGreaterThanOrEqual(lane[k - 1]![0]);
        if (JSON.stringify(lane) !== JSON.stringify(take.lanes[control])) moved++;
      }
      expect(playHand(take, CHARACTERS[2]!, seed)).toEqual(played);
    }),
  );
  expect(moved).toBeGreaterThan(50);
  // 0.29 and 0.53 add up to slightly more than 0.82: a press right after another keeps its position anyway.
  const close = {
    ...TAKE,
    lanes: { ...TAKE.lanes, a: [[0.05, 1] as const, [0.29, 0] as const, [0.82, 1] as const] },
  };
  expect(playHand(close, STILL, 0)).toEqual(close);
  const bare = { ...STILL, spreadMs: 30 };
  const other = { ...TAKE, lanes: { ...TAKE.lanes, a: TAKE.lanes.a!.slice(0, 4) } };
  // One stream per press: removing the last press leaves the draws of the others unchanged.
  expect(playHand(other, bare, 7).lanes.a).toEqual(playHand(TAKE, bare, 7).lanes.a!.slice(0, 4));
});

test("draws of a character have its spread, and a fit of them returns that spread", () => {
  const presses = Array.from({ length: 200 }, (_, k): [number, number][] => [
    [100 * k + 52, 1],
    [100 * k + 60, 0],
  ]).flat();
  const gates = Array.from({ length: 200 }, (_, k): [number, 0 | 1][] => [
    [100 * k + 50, 1],
    [100 * k + 90, 0],
  ]).flat();
  const long = { ...TAKE, frames: 20_000, lanes: { a: presses }, gates: { ground: gates } };
  const played = playHand(long, { ...STILL, spreadMs: 40, lengthPercent: 25, biasMs: 10 }, 3);
  const offsets = played.lanes.a!.filter((_, k) => k % 2 === 0).map(([x], k) => x - (100 * k + 52));
  const mean = offsets.reduce((sum, value) => sum + value, 0) / offsets.length;
  const deviation = Math.sqrt(offsets.reduce((sum, value) => sum + (value - mean) ** 2, 0) / offsets.length);
  expect((mean * 1000) / 60).toBeGreaterThan(3);
  expect((mean * 1000) / 60).toBeLessThan(17);
  expect((deviation * 1000) / 60).toBeGreaterThan(35);
  expect((deviation * 1000) / 60).toBeLessThan(45);
  const program = mustCompile(HOP);
  const columns = readTake(program, played);
  const fitted = fitCharacter(program, [{ take: played, columns, trace: run(program, columns) }]);
  expect(fitted.onset.presses).toBeGreaterThan(150);
  expect(fitted.character.spreadMs).toBeGreaterThan(25);
  expect(fitted.character.spreadMs).toBeLessThan(45);
  expect(fitted.character.lengthPercent).toBeGreaterThan(18);
  expect(fitted.character.lengthPercent).toBeLessThan(32);
  expect(fitCharacter(program, []).onset).toEqual({ presses: 0, groups: 0 });
});

test("without spread every press is used as it was; a wide spread loses the tight press at a reported seed", () => {
  const still = finish(studyHands({ kit: HOP, character: STILL, seed: 1, count: 5 }, [TAKE], prepare));
  const used = still.presses.filter(({ same }) => same !== undefined);
  expect(used.map(({ control, frame, same }) => [control, frame, same!.hits, same!.n])).toEqual([
    ["a", 6, 5, 5],
    ["a", 23, 5, 5],
    ["b", 2, 5, 5],
  ]);
  expect(used.every(({ failsAt }) => failsAt === undefined)).toBe(true);
  const wide = finish(
    studyHands({ kit: HOP, character: { ...STILL, spreadMs: 60 }, seed: 1, count: 100 }, [TAKE], prepare),
  );
  const tight = wide.presses.find(({ frame }) => frame === 6)!;
  expect(tight.kept.hits).toBeGreaterThan(40);
  expect(tight.kept.hits).toBeLessThan(95);
  const failing = playHand(TAKE, { ...STILL, spreadMs: 60 }, tight.failsAt!);
  const { edges } = [
    ...readOutcome(
      mustCompile(HOP),
      evaluate(mustCompile(HOP), failing),
      countedOf(HOP, [{ kind: "group", group: "buffers" }]),
    ).events.values(),
  ][0]!;
  expect(edges.some(key => Math.floor(key / mustCompile(HOP).sourceCount) === 6)).toBe(false);
  expect(wide.moves.map(({ index }) => index)).toEqual([0, 1]);
});

const BUFFER = { kind: "length", path: ["moves", 0, "buffer"], unit: "f" } as const;

test("a sweep reports what each value loses, saves and adds, and its two limits", () => {
  const values = [0, 1, 2, 3, 4, 5, 6];
  const points = finish(sweepValues({ kit: HOP, swept: BUFFER, values }, [TAKE], prepare));
  expect(
    points.map(({ performed, lostPresses, saved, gone }) => [performed.buffer, lostPresses, saved, gone]),
  ).toEqual([
    [0, 2, 0, 1],
    [0, 2, 0, 1],
    [1, 1, 0, 0],
    [1, 1, 0, 0],
    [1, 1, 0, 0],
    [2, 1, 1, 1],
    [2, 1, 1, 1],
  ]);
  // The press saved on 15 spends the ground of the one on 23: nothing is gained without a loss.
  expect(findEdges(points, 3)).toEqual({ nothingLostFrom: undefined, nothingUnwantedTo: 6 });
  const kept = { ...HOP, moves: HOP.moves!.map(({ spends: _spends, ...move }) => move) };
  const free = finish(sweepValues({ kit: kept, swept: BUFFER, values }, [TAKE], prepare));
  expect(findEdges(free, 3)).toEqual({ nothingLostFrom: 5, nothingUnwantedTo: 6 });
});

test("a sweep equals its single runs, whatever is swept", () => {
  let performed = 0;
  fc.assert(
    fc.property(
      anyKit,
      anyTake,
      fc.array(fc.integer({ min: 0, max: 20 }), { maxLength: 4 }),
      (kit, take, values) => {
        if (!kit.moves?.[0] || !compile(kit).ok) return;
        const points = finish(sweepValues({ kit, swept: BUFFER, values }, [take], prepare));
        values.forEach((value, k) => {
          const program = compile(writeAt(kit, BUFFER.path, `${value}f`));
          if (!program.ok) return expect(points[k]!.runs).toBe(0);
          const single = readOutcome(program.value, evaluate(program.value, take), countedOf(kit, [BUFFER]));
          expect(points[k]!.performed).toEqual(single.performed);
          expect(points[k]!.lostPresses).toBe(single.lostPresses.size);
          performed += Object.values(single.performed).reduce((sum, count) => sum + count, 0);
        });
      },
    ),
    { numRuns: 200 },
  );
  expect(performed).toBeGreaterThan(0);
});

test("a group is swept by a factor, each length in its own unit", () => {
  const kit = writeSwept(HOP, { kind: "group", group: "windows" }, 200)!;
  expect(kit.moves![0]).toMatchObject({ buffer: "6f", needs: [{ gate: "ground", coyote: "4f" }] });
});

test("at the kit's own rate nothing differs; at others slipped, lost and new events are listed in order of time", () => {
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      const program = compile(kit);
      if (!program.ok) return;
      const story = listStory(program.value, evaluate(program.value, take));
      const aligned = alignStories(story, kit.rate, story, kit.rate);
      expect(aligned.every(({ what }) => what === "same")).toBe(true);
      expect(aligned.length).toBe(story.length);
    }),
  );
  const was = [
    [60, "performed", "hop"],
    [120, "performed", "hop"],
    [180, "prompt", "catch", "good"],
  ] as const;
  const is = [
    [33, "performed", "hop"],
    [60, "performed", "hop"],
    [80, "performed", "hop"],
    [90, "prompt", "catch", "failed"],
  ] as const;
  const differences = alignStories([...was], 60, [...is], 30).map(({ what, id, was: a, is: b }) => [
    what,
    id,
    a,
    b,
  ]);
  expect(differences).toEqual([
    ["slipped", "hop", 1, 1.1],
    ["same", "hop", 2, 2],
    ["new", "hop", NaN, 80 / 30],
    ["changed", "catch", 3, 3],
  ]);
});

test("a length in ms is rounded at each rate, with its error", () => {
  const [length] = roundLengths(HOP, [30, 60, 144]);
  expect(length).toMatchObject({ rule: "H", written: "100ms", rounding: "atLeast" });
  expect(length!.at.map(({ frames, offMs }) => [frames, Math.round(offMs * 10) / 10])).toEqual([
    [3, 0],
    [6, 0],
    [15, 4.2],
  ]);
});

test("overlaps: a rule that always comes along is distinguished from one that can come alone; a pair without one shows the extent of the search", () => {
  const kit = sketchKit("abc", {
    patterns: [
      { id: "press", name: "Press", kind: "press", control: "a" },
      { id: "both", name: "Both", kind: "chord", controls: ["a", "b"], spread: "4f" },
      { id: "tap", name: "Tap", kind: "tap", control: "c", max: "5f" },
      { id: "long", name: "Long", kind: "hold", control: "c", for: "9f", fire: "reach" },
    ],
    gates: [{ id: "g", name: "G" }],
    moves: [
      { id: "m", name: "M", pattern: "press" },
      { id: "n", name: "N", pattern: "both", needs: [{ gate: "g" }], slot: "other" },
      { id: "never", name: "Never", pattern: "tap", needs: [{ gate: "g" }], bans: ["g"] },
    ],
  });
  const { found, none, silent } = finish(findOverlaps(kit));
  expect(found.map(({ list, first, second, inInputs }) => [list, first, second, inInputs.alone])).toEqual([
    ["patterns", 0, 1, 0],
    ["moves", 0, 1, 0],
  ]);
  expect(found.every(({ inInputs, inTakes }) => inInputs.total > 0 && inTakes.total === 0)).toBe(true);
  expect(none.find(({ first, second }) => first === 2 && second === 3)!.tried).toBeGreaterThan(3);
  expect(silent.map(({ list, index }) => [list, index])).toEqual([["moves", 2]]);
});

test("overlaps: moves that need the output of another, or a count of its events, are tried where these are on", () => {
  const kit = sketchKit("ab", {
    patterns: [
      { id: "charge", name: "Charge", kind: "hold", control: "a", for: "20f", fire: "reach" },
      { id: "tap", name: "Tap", kind: "tap", control: "b", max: "10f" },
      { id: "hold", name: "Hold", kind: "hold", control: "b", for: "4f", fire: "reach" },
    ],
    gates: [{ id: "hot", name: "Hot", performs: "glow", atLeast: 3 }],
    moves: [
      { id: "glow", name: "Glow", pattern: "charge", linger: "18f" },
      { id: "parry", name: "Parry", pattern: "tap", slot: "two", needs: [{ gate: "out:glow" }] },
      { id: "burst", name: "Burst", pattern: "hold", slot: "three", needs: [{ gate: "hot" }] },
      { id: "late", name: "Late", pattern: "hold", slot: "four", needs: [{ gate: "out:parry" }] },
    ],
  });
  const { found, silent } = finish(findOverlaps({ ...kit, moves: kit.moves!.slice(0, 3) }));
  expect(silent).toEqual([]);
  const both = found.find(({ list }) => list === "moves")!;
  expect(both).toMatchObject({ first: 2, second: 1 });
  // The input of the first move, and on the frame after it one press for both others.
  expect(both.witness.lanes).toEqual({
    a: [
      [5, 1],
      [25, 0],
    ],
    b: [
      [26, 1],
      [31, 0],
    ],
  });
  // The output of one that is itself performed only by an output is not tried.
  const linger = { ...kit.moves![1]!, linger: "9f" };
  const chained = { ...kit, moves: [kit.moves![0]!, linger, ...kit.moves!.slice(2)] };
  expect(finish(findOverlaps(chained)).silent.map(({ index }) => index)).toEqual([3]);
});

test("a take in which a rule came without the other is counted separately from the inputs", () => {
  const kit = sketchKit("ab", {
    patterns: [
      { id: "press", name: "Press", kind: "press", control: "a" },
      { id: "both", name: "Both", kind: "chord", controls: ["a", "b"] },
    ],
    gates: [{ id: "g", name: "G" }],
    moves: [
      { id: "m", name: "M", pattern: "press", needs: [{ gate: "g" }] },
      { id: "n", name: "N", pattern: "both", slot: "other" },
    ],
  });
  // With its gate closed the first move is not performed, unlike in every tried input.
  const take = drawTake({ a: "..####....####..", b: "...###.....###.." }, { g: "#######........." });
  const { found } = finish(findOverlaps(kit, [take]));
  const overlap = found.find(({ list }) => list === "moves")!;
  expect(overlap).toMatchObject({ first: 0, second: 1, inTakes: { total: 2, alone: 1 } });
  expect(overlap.inInputs.alone).toBe(0);
});

test("overlaps: a move that leaves the gate of another is tried with that gate left; takes show what no input does", () => {
  const kit = sketchKit("ab", {
    gates: [
      { id: "ground", name: "Ground" },
      { id: "aloft", name: "Aloft", none: ["ground"] },
      { id: "calm", name: "Calm" },
      { id: "storm", name: "Storm", none: ["calm"] },
    ],
    patterns: [
      { id: "leap", name: "Leap", kind: "press", control: "a" },
      { id: "held", name: "Held", kind: "hold", control: "a", for: "10f", fire: "reach" },
      { id: "tap", name: "Tap", kind: "tap", control: "b", max: "9f" },
      { id: "twice", name: "Twice", kind: "taps", control: "b", count: 2, gap: "12f", answer: "nth" },
    ],
    moves: [
      { id: "hop", name: "Hop", pattern: "leap", needs: [{ gate: "ground" }] },
      { id: "glide", name: "Glide", pattern: "held", needs: [{ gate: "aloft" }] },
      { id: "rest", name: "Rest", pattern: "tap", needs: [{ gate: "calm" }], slot: "b" },
      { id: "gale", name: "Gale", pattern: "twice", needs: [{ gate: "storm" }], slot: "b" },
    ],
  });
  const take = drawTake({ b: ".##....##......" }, { calm: "#####.........." });
  const ofMoves = (takes: readonly Take[]) =>
    finish(findOverlaps(kit, takes)).found.filter(({ list }) => list === "moves");
  expect(ofMoves([])).toMatchObject([{ first: 0, second: 1, isPlayed: false, witness: { gates: {} } }]);
  expect(ofMoves([take]).at(-1)).toMatchObject({ first: 2, second: 3, isPlayed: true, witness: take });
});

test("every witness sets off both rules, on any kit", () => {
  let seen = 0;
  fc.assert(
    fc.property(anyKit, kit => {
      if (!compile(kit).ok) return;
      for (const { list, first, second, firstFrame, secondFrame, witness, mode } of finish(findOverlaps(kit))
        .found) {
        const program = mustCompile(mode === undefined ? kit : { ...kit, start: mode });
        const trace = evaluate(program, witness);
        const kind = list === "patterns" ? 2 : 5;
        const frames = (index: number) =>
          Array.from({ length: trace.count }, (_, i) => i)
            .filter(i => trace.kind[i] === kind && trace.subject[i] === index)
            .map(i => trace.frame[i]);
        expect(frames(first)).toContain(firstFrame);
        expect(frames(second)).toContain(secondFrame);
        seen++;
      }
    }),
    { numRuns: 60 },
  );
  expect(seen).toBeGreaterThan(20);
});
