import fc from "fast-check";
import { expect, test } from "vitest";
import { anyKit, anySharingKit, anyTake } from "../../core/tests/arbitraries";
import { mustCompile } from "../../core/tests/strips";
import {
  answeredStretch,
  compile,
  evaluate,
  evaluateEasing,
  listMeanwhile,
  parseEasing,
  performedOf,
  readOutcomes,
  totalOf,
  type Kit,
  type Take,
} from "#core";
import { formatBezier, formatPoints, movePoint, readCurve, readPasted, samplePoints } from "./curvePoints";
import { compileRules } from "#stage";
import {
  closeStretch,
  findBroken,
  listLengthDots,
  listStretches,
  wantedKey,
  wantedKeyOf,
} from "./pressLengths";
import { axisStep, createScale } from "./scale";
import { listTapGaps, priceOfTaps } from "./tapGaps";
import { listTries } from "./tries";
import { formatOffsets, listAnswers } from "./answers";
import { formatUndrawn } from "./countWords";
import { countBan, countRequests, countWindow, listBanDots, listWindowDots, lostPresses } from "./windowDots";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "maps",
  name: "Maps",
  rate: 60,
  controls: ["a", "b", "c"].map(id => ({ id, name: id.toUpperCase(), bindings: [] })),
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [
    { id: "tap", name: "Tap", kind: "tap", control: "b", max: "8f" },
    { id: "hold", name: "Hold", kind: "hold", control: "b", for: "14f", fire: "reach" },
    { id: "press", name: "Press", kind: "press", control: "a" },
    {
      id: "seq",
      name: "Sequence",
      kind: "sequence",
      gap: "10f",
      steps: [{ press: "a" }, { hold: "c", for: "4f" }, { release: "c" }, { press: "b" }],
    },
  ],
  moves: [
    { id: "hop", name: "Hop", pattern: "press", needs: [{ gate: "ground", coyote: "4f" }], buffer: "5f" },
  ],
};

/** Presses of three frames, starting at these frames. */
const presses = (...frames: number[]) =>
  frames.flatMap((f): [number, number][] => [
    [f, 1],
    [f + 3, 0],
  ]);

function open(fields: Partial<Take>, kit = KIT) {
  const compiled = compile(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  const take: Take = {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames: 200,
    lanes: {},
    ...fields,
  };
  const program = compiled.value;
  const trace = evaluate(program, take);
  return { program, take, trace, outcomes: readOutcomes(program, trace) };
}

test("each press of a move is positioned relative to its gate, and counted with the nearest miss", () => {
  const read = open({
    lanes: { a: presses(10, 43, 66, 92, 130) },
    gates: {
      ground: [
        [0, 1],
        [40, 0],
        [71, 1],
        [84, 0],
        [100, 1],
        [120, 0],
      ],
    },
  });
  const dots = listWindowDots(read, 0, 0);
  expect(dots.map(dot => [dot.fate, dot.side, dot.frames, dot.waited])).toEqual([
    ["direct", "open", 10, 0],
    ["coyote", "late", 4, 0],
    ["buffer", "early", 5, 5],
    ["lost", "early", 8, 0],
    ["lost", "late", 11, 0],
  ]);
  expect(countWindow(dots, 5, 4)).toEqual({
    direct: 1,
    buffer: 1,
    coyote: 1,
    both: 0,
    early: 1,
    late: 1,
    spent: 0,
    hopeless: 0,
    earlyBy: 3,
    lateBy: 7,
  });
  expect(countWindow([], 5, 4)).toMatchObject({ direct: 0, earlyBy: Infinity });
  const never = { fate: "lost", side: "early", frames: Infinity, waited: 0, frame: 3, note: 0 } as const;
  expect(countWindow([never], 5, 4)).toMatchObject({ hopeless: 1, early: 0, earlyBy: Infinity });
});

test("requests without a dot are counted and named", () => {
  const read = open({ lanes: { a: presses(10, 12, 40) }, gates: { ground: [[0, 1]] } });
  const asked = read.outcomes.counts.moves[0]!.asked;
  expect(countRequests([read, read], 0, 4)).toEqual({
    asked: 2 * asked,
    lostElsewhere: 2 * asked - 4,
    waiting: 0,
  });
  const requests = { asked: 6, lostElsewhere: 0, waiting: 0 };
  expect(formatUndrawn(requests)).toBe("");
  expect(formatUndrawn({ ...requests, lostElsewhere: 3 })).toBe(" · 3\u00a0lost for other reasons");
  expect(formatUndrawn({ ...requests, waiting: 1 })).toBe(" · 1\u00a0still waiting");
});

test("a dead stretch is closed from either side, and two rules that answer one press are separated", () => {
  const { program } = open({});
  const dead = listStretches(program, 1, 30).find(stretch => stretch.patternIds.length === 0)!;
  expect([dead.from, dead.to]).toEqual([9, 13]);
  const closings = closeStretch(KIT, dead, "b");
  expect(closings.map(closing => closing.words)).toEqual(["Let Tap reach up to 13f", "Let Hold begin at 9f"]);
  for (const closing of closings) {
    const compiled = compile(closing.edit(KIT));
    if (!compiled.ok) throw new Error("must compile");
    expect(listStretches(compiled.value, 1, 30).map(stretch => stretch.patternIds.length)).toEqual([1, 1]);
  }
  const both = { from: 9, to: 12, patternIds: ["tap", "hold"] };
  expect(closeStretch(KIT, both, "b").map(closing => closing.words)).toEqual([
    "End Tap at 8f, so that one alone answers",
  ]);
});

test("gaps between taps are those up to a length, and final taps cost the whole gap and one frame", () => {
  const taps = { id: "taps", name: "Taps", kind: "taps", control: "a", count: 2, gap: "12f", answer: "nth" };
  const kit = { ...KIT, patterns: [taps], moves: [] } as unknown as Kit;
  const lanes = { a: presses(10, 20, 35, 90) };
  expect(listTapGaps(open({ lanes }, kit), 0, 30).map(({ gap }) => gap)).toEqual([10, 15]);
  // At half speed each gap counts half as many frames for the rule.
  expect(listTapGaps(open({ lanes, speed: [[0, 50]] }, kit), 0, 30).map(({ gap }) => gap)).toEqual([
    5, 7.5, 27.5,
  ]);
  expect(priceOfTaps("final", 12)).toEqual({ waits: 13 });
  expect(priceOfTaps("each", 12)).toEqual({ waits: 0 });
});

test("attempts at a sequence: how far each got, the gaps of those that fired, and why the others failed", () => {
  const { program, trace } = open({
    lanes: {
      a: presses(6, 56, 118),
      c: [
        [10, 1],
        [16, 0],
        [60, 1],
        [66, 0],
        [120, 1],
        [122, 0],
      ],
      b: presses(20),
    },
  });
  expect(listTries(program, [trace], 3)).toEqual({
    fired: 1,
    reached: [3, 2, 2, 1],
    gaps: [[8], [2], [4]],
    broken: { "too slow": 2 },
    missed: [[], [], []],
  });
});

test("an attempt at a sequence that failed by a late or missing press", () => {
  const kit = {
    ...KIT,
    patterns: [
      {
        id: "s",
        name: "S",
        kind: "sequence",
        gap: "8f",
        steps: [{ press: "a" }, { press: "b" }, { press: "c" }],
      },
    ],
    moves: [],
  } as unknown as Kit;
  const { program, trace } = open({ lanes: { a: presses(10, 60), b: presses(15, 75) } }, kit);
  expect(listTries(program, [trace], 0)).toMatchObject({ reached: [2, 1, 0], missed: [[15], []] });
});

test("presses around a banning gate: buffered, lost too early, or after it", () => {
  const kit = {
    ...KIT,
    moves: [{ id: "act", name: "Act", pattern: "press", bans: ["ground"], buffer: "5f" }],
  };
  const read = open(
    {
      gates: {
        ground: [
          [10, 1],
          [40, 0],
        ],
      },
      lanes: { a: presses(20, 37, 50) },
    },
    kit,
  );
  expect(listBanDots(read, 0, 0)).toMatchObject([
    { fate: "lost", side: "early", frames: 20 },
    { fate: "buffer", side: "early", frames: 3, waited: 3 },
    { fate: "direct", side: "open", frames: 10 },
  ]);
  expect(countBan(listBanDots(read, 0, 0), 5)).toEqual({
    buffered: 1,
    free: 1,
    early: 1,
    hopeless: 0,
    caught: 0,
    earlyBy: 15,
  });
});

test("maps of gates that no trace file mentions know when they were open: a busy slot, the output of a move", () => {
  const kit: Kit = {
    ...KIT,
    patterns: [...KIT.patterns, { id: "long", name: "Long", kind: "press", control: "c" }],
    moves: [
      {
        id: "blow",
        name: "Blow",
        pattern: "press",
        frames: { startup: "0f", active: "20f", recovery: "0f" },
      },
      { id: "glow", name: "Glow", pattern: "long", slot: "lamp", linger: "10f" },
      {
        id: "aim",
        name: "Aim",
        pattern: "tap",
        slot: "light",
        needs: [{ gate: "out:glow" }],
        shares: true,
        buffer: "5f",
      },
      {
        id: "duck",
        name: "Duck",
        pattern: "tap",
        slot: "feet",
        bans: ["busy:main"],
        buffer: "5f",
        defer: "2f",
      },
    ],
  };
  // Taps end on 23, 53 and 83; the blow is busy from 41 to 59; the glow is on from 14 to 26 and from 86 on.
  const read = open({ lanes: { a: presses(40), b: presses(20, 50, 80), c: presses(13, 85) } }, kit);
  const gateOf = (id: string) => read.program.gates.findIndex(gate => gate.id === id);
  expect(listWindowDots(read, 2, gateOf("out:glow"))).toMatchObject([
    { fate: "direct", side: "open", frames: 9, waited: 0 },
    { fate: "lost", side: "late", frames: 27 },
    { fate: "buffer", side: "early", frames: 3, waited: 3 },
  ]);
  expect(listBanDots(read, 3, gateOf("busy:main"))).toMatchObject([
    { fate: "buffer", side: "early", frames: 5, waited: 5 },
    { fate: "direct", side: "open", frames: 25 },
  ]);
});

test("a request lost at a ban is counted by its cause, and what it missed in whole frames", () => {
  const lost = { fate: "lost", side: "early", waited: 0, frame: 3, note: 0 } as const;
  const dots = [
    { ...lost, frames: 7.4 },
    { ...lost, frames: Infinity },
    { ...lost, side: "open", frames: 2 },
  ] as const;
  expect(countBan(dots, 5)).toEqual({ buffered: 0, free: 0, early: 1, hopeless: 1, caught: 1, earlyBy: 3 });
});

test("a length is offered to the presses that a caption calls early, and not where the gate never turns", () => {
  const read = open({
    lanes: { a: presses(10, 80) },
    gates: {
      ground: [
        [20, 1],
        [30, 0],
      ],
    },
    frames: 200,
  });
  const dots = listWindowDots(read, 0, 0).map(dot => ({ ...dot, take: 4 }));
  expect(countWindow(dots, 5, 4)).toMatchObject({ early: 1, late: 1, hopeless: 0 });
  expect(lostPresses(dots, "early")).toEqual([{ control: 0, frame: 10, take: 4 }]);
  const never = open({ lanes: { a: presses(10) }, gates: {} });
  const without = listWindowDots(never, 0, 0).map(dot => ({ ...dot, take: 0 }));
  expect(countWindow(without, 5, 4)).toMatchObject({ early: 0, hopeless: 1 });
  expect(lostPresses(without, "early")).toEqual([]);
});

test("how each showing of a prompt ended, by grade or by why it failed, since it was shown", () => {
  const prompt = {
    id: "q",
    name: "Q",
    ask: ["press"],
    starts: { at: "10f" },
    lead: "10f",
    window: "20f",
    target: "10f",
    grades: [{ name: "good", within: "4f" }],
  };
  const kit: Kit = { ...KIT, prompts: [prompt, { ...prompt, id: "r", early: "fail" }] };
  const good = open({ lanes: { a: presses(31) } }, kit);
  expect(listAnswers(good.program, good.trace, 0)).toEqual([
    { at: 21, grade: 0, failed: undefined, note: 8 },
  ]);
  const early = open({ lanes: { a: presses(15) } }, kit);
  expect(listAnswers(early.program, early.trace, 0)).toMatchObject([
    { at: 31, grade: -1, failed: "too-late" },
  ]);
  expect(listAnswers(early.program, early.trace, 1)).toMatchObject([
    { at: 5, grade: -1, failed: "too-early" },
  ]);
});

test("a curve is read for editing and written back as CSS", () => {
  const read = (css: string) => {
    const parsed = parseEasing(css);
    if (!parsed.ok) throw new Error(css);
    return parsed.value;
  };
  expect(readCurve(read("ease-in"))).toEqual({ kind: "bezier", handles: [0.42, 0, 1, 1] });
  expect(readCurve(read("steps(3)"))).toEqual({ kind: "fixed" });
  expect(formatBezier([-0.2, 1.5, 0.3333333, 0])).toBe("cubic-bezier(0, 1.5, 0.333, 0)");
  const points = samplePoints(ratio => evaluateEasing(read("ease-in"), ratio), 3);
  expect(formatPoints(points)).toMatch(/^linear\(0 0%, 0\.3\d+ 50%, 1 100%\)$/);
  expect(readCurve(read(formatPoints(points)))).toMatchObject({ kind: "points" });
  expect(movePoint(points, 1, 4, 0.9)[1]).toEqual([0.995, 0.9]);
  expect(movePoint(points, 0, 0.5, 0.2)[0]).toEqual([0, 0.2]);
});

test.each([
  ["transition: all 1s cubic-bezier(0.1, 0.2, 0.3, 1);", { ok: true, css: "cubic-bezier(0.1, 0.2, 0.3, 1)" }],
  ["ease-in-out", { ok: true, css: "ease-in-out" }],
  ["linear(0, 0.5 20%, 1)", { ok: true, css: "linear(0, 0.5 20%, 1)" }],
])("pasting %s", (text, expected) => {
  expect(readPasted(text)).toEqual(expected);
});

test("an invalid easing function is refused with a reason", () => {
  expect(readPasted("swoosh")).toMatchObject({
    ok: false,
    reason: expect.stringContaining("write linear") as string,
  });
});

test("a scale shows both its ends, and its marks keep their distance", () => {
  const scale = createScale(-10, 29, 400);
  expect([scale.x(-10), scale.x(30)]).toEqual([0, 400]);
  for (const pxPerFrame of [1, 3, 8, 25])
    expect(axisStep(pxPerFrame) * pxPerFrame).toBeGreaterThanOrEqual(70);
});

test("a repair that makes another rule inapplicable is dropped; an intended stretch is remembered by its rules, not its numbers", () => {
  const charge = {
    ...{ id: "c", name: "Charge", kind: "charge", control: "b", min: "5f", full: "60f" },
    ...{ limit: "90f", fire: "release" },
  } as Kit["patterns"][number];
  const kit: Kit = { ...KIT, patterns: [charge, KIT.patterns[0]!], moves: [] };
  const both = listStretches(open({}, kit).program, 1, 100).find(found => found.patternIds.length > 1)!;
  const sound = closeStretch(kit, both, "b").map(({ words, edit }) => [
    words,
    findBroken(compileRules(kit), compileRules(edit(kit))),
  ]);
  expect(sound).toEqual([
    ["End Charge at 4f, so that one alone answers", true],
    ["End Tap at 4f, so that one alone answers", false],
  ]);
  const stretches = [
    { from: 1, to: 8, patternIds: ["tap"] },
    { from: 9, to: 13, patternIds: [] },
    { from: 14, to: 30, patternIds: ["hold"] },
  ];
  expect(stretches.map((_, k) => wantedKey("b", stretches, k))).toEqual(["", "dead b hold tap", ""]);
  const rules = compileRules(KIT);
  const keys = (rules.ok ? rules.warnings : []).map(issue => wantedKeyOf(issue, KIT));
  expect(keys).toContain("dead b hold tap");
});

test.each([
  ["any kit", anyKit],
  ["kits whose prompts share presses", anySharingKit],
])("the dots of every map add up to the counts of its rule, on %s", (_name, kits) => {
  let dots = 0;
  fc.assert(
    fc.property(kits, anyTake, (kit, take) => {
      const compiled = compile(kit);
      if (!compiled.ok) return;
      const program = compiled.value;
      const trace = evaluate(program, take);
      const outcomes = readOutcomes(program, trace);
      const read = { program, trace, outcomes };
      program.moves.forEach(({ needs, bans }, m) => {
        const own = outcomes.counts.moves[m]!;
        for (const { gate } of needs) {
          const found = listWindowDots(read, m, gate);
          const { direct, buffer, coyote, both, early, late, spent, hopeless } = countWindow(found, 0, 0);
          expect({ direct, buffer, coyote, both }).toEqual(own.performed);
          // Performed at once by a gate that was open: also one of a slot, or of the output of a move.
          for (const dot of found) if (dot.fate === "direct") expect(dot.side).toBe("open");
          expect(early + late + spent + hopeless).toBeLessThanOrEqual(own.lost.gate ?? 0);
          if (needs.length === 1) expect(early + late + spent + hopeless).toBe(own.lost.gate ?? 0);
          const requests = countRequests([read], m, found.length);
          expect(requests).toMatchObject({ asked: own.asked, waiting: own.pending });
          const elsewhere = totalOf(own.lost) - (early + late + spent + hopeless);
          expect(requests.lostElsewhere).toBe(elsewhere);
          dots += found.length;
        }
        for (const ban of bans) {
          const found = listBanDots(read, m, ban);
          const { buffered, free, early, hopeless, caught } = countBan(found, 0);
          expect(buffered + free).toBe(performedOf(own));
          if (bans.length === 1) expect(early + hopeless + caught).toBe(own.lost.ban ?? 0);
          expect(countRequests([read], m, found.length).lostElsewhere).toBe(
            totalOf(own.lost) - (early + hopeless + caught),
          );
        }
        const meanwhile = listMeanwhile(program, trace, outcomes.requests, m);
        for (const { frame } of meanwhile)
          expect(outcomes.requests.some(request => request.made === frame)).toBe(true);
      });
      program.prompts.forEach((_, p) => {
        const { answered, failed } = outcomes.counts.prompts[p]!;
        expect(listAnswers(program, trace, p).length).toBe(answered + totalOf(failed));
      });
      program.controls.forEach((_, c) => {
        const own = program.patterns.flatMap((pattern, i) =>
          "control" in pattern && pattern.control === c ? [i] : [],
        );
        const found = listLengthDots(read, c);
        const presses = outcomes.presses.filter(({ control }) => control === c);
        for (const { press, became } of found) {
          const fate = presses.find(({ frame }) => frame === press)!;
          expect(became === "answered").toBe(fate.fires.some(({ pattern }) => own.includes(pattern)));
        }
        expect(presses.length - found.length).toBeLessThanOrEqual(1);
        dots += found.length;
      });
      program.patterns.forEach((pattern, i) => {
        if (pattern.kind !== "sequence") return;
        const { fired, lapsed } = outcomes.counts.patterns[i]!;
        const tries = listTries(program, [trace], i);
        expect(tries.fired).toBe(fired);
        expect(totalOf(tries.broken)).toBe(totalOf(lapsed));
      });
    }),
    { numRuns: 300 },
  );
  expect(dots).toBeGreaterThan(300);
});

test("a press is judged by its mode and clock, not by its length in the take", () => {
  const modes = {
    modes: [
      { id: "on", name: "On" },
      { id: "off", name: "Off" },
    ],
  };
  const kit: Kit = {
    ...KIT,
    ...modes,
    patterns: [{ id: "tap", name: "Tap", kind: "tap", control: "b", max: "8f", modes: ["on"] }],
    moves: [],
    switches: [{ when: { gate: "ground", turns: "open" }, to: "off" }],
  };
  const lanes = {
    b: [
      [10, 1],
      [22, 0],
      [60, 1],
      [63, 0],
      [90, 1],
      [93, 0],
    ] as [number, number][],
  };
  // The first press is held through a freeze of six frames; the last is made in a mode without the rule.
  const speed: [number, number][] = [
    [12, 0],
    [18, 100],
  ];
  const read = open({ lanes, speed, gates: { ground: [[80, 1]] } }, kit);
  expect(listLengthDots(read, 1).map(({ length, became }) => [length, became])).toEqual([
    [6, "answered"],
    [3, "answered"],
    [3, "unheard"],
  ]);
});

test("the bias and spread of answers are in frames and ms, from two answers on", () => {
  expect(formatOffsets([3], 60)).toBe("");
  expect(formatOffsets([-1, -2, -3], 60)).toBe("2f (33.3 ms) early on average, give or take 1f (16.7 ms)");
  expect(formatOffsets([1, 2, 4, 5], 50)).toBe("3f (60 ms) late on average, give or take 1.8f (36.5 ms)");
  expect(formatOffsets([-2, 2], 60)).toBe("at the best moment on average, give or take 2.8f (47.1 ms)");
});

test("the stretches of a control are those of every length asked one by one, on any kit", () => {
  fc.assert(
    fc.property(anyKit, kit => {
      const program = mustCompile(kit);
      const own = program.patterns.flatMap(pattern => {
        const isOn = !pattern.isOff && "control" in pattern && pattern.control === 0;
        const stretch = isOn ? answeredStretch(pattern) : undefined;
        return stretch ? [stretch] : [];
      });
      const slow: { from: number; to: number; patternIds: string[] }[] = [];
      for (let frames = 1; frames <= 40; frames++) {
        const patternIds = own.filter(({ from, to }) => from <= frames && frames <= to).map(({ id }) => id);
        const last = slow.at(-1);
        if (last && last.patternIds.join() === patternIds.join()) last.to = frames;
        else slow.push({ from: frames, to: frames, patternIds });
      }
      expect(listStretches(program, 0, 40)).toEqual(slow);
    }),
    { numRuns: 100 },
  );
});
