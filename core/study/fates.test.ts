import fc from "fast-check";
import { expect, test } from "vitest";
import type { Kit } from "../kit/schema";
import { evaluate } from "../run/run";
import { writeAt } from "../kit/editAt";
import { anyKit, anyTake } from "../tests/arbitraries";
import { assertUntil } from "../tests/assertUntil";
import { drawTake, mustCompile, sketchKit } from "../tests/strips";
import { formatEventWords } from "../trace/eventWords";
import { formatTrace } from "../trace/formatTrace";
import { listDelays } from "./feel/delays";
import { readOutcomes } from "./outcomes/readOutcomes";
import { formatFate } from "./formatFate";
import { formatPrice } from "./price";
import { findRepairs, formatRepair } from "./repairs";
import { expectWithin } from "../tests/expectWithin";

const KIT: Kit = {
  ...sketchKit("ab", {
    gates: [{ id: "footing", name: "Footing" }],
    patterns: [
      { id: "leap", name: "Leap", kind: "press", control: "a" },
      { id: "cling", name: "Cling", kind: "hold", control: "b", for: "6f", fire: "reach" },
      { id: "tuck", name: "Tuck", kind: "tap", control: "b", max: "3f" },
    ],
    moves: [
      { id: "hop", name: "Hop", pattern: "leap", needs: [{ gate: "footing", coyote: "2f" }], buffer: "3f" },
    ],
  }),
};

function format(kit: Kit, take: ReturnType<typeof drawTake>) {
  const program = mustCompile(kit);
  const trace = evaluate(program, take);
  return readOutcomes(program, trace).presses.map(fate => {
    const [repair] = findRepairs(kit, take, fate, { isNearestOnly: true });
    const offer = repair ? ` ${formatRepair(kit, repair)}; ${formatPrice(kit, repair.price)}.` : "";
    return formatFate({ kit, program }, trace, fate) + offer;
  });
}

test("a wait to be sure is no buffer, in sentences, events and delays", () => {
  const [hop] = KIT.moves!;
  const kit = { ...KIT, moves: [{ ...hop!, defer: "2f" }] };
  const program = mustCompile(kit);
  const wordsOf = (gate: string) => {
    const trace = evaluate(program, drawTake({ a: "..#......." }, { footing: gate }));
    const { presses, requests } = readOutcomes(program, trace);
    const [event] = formatTrace(program, trace).events.filter(({ kind }) => kind === "performed");
    const [delay] = listDelays(program, trace, requests);
    return [formatFate({ kit, program }, trace, presses[0]!), formatEventWords(event!, kit), delay];
  };
  expect(wordsOf("##########")).toMatchObject([
    "A at 2 became Hop at 4, after 2f to be sure.",
    "performed after 2f",
    { total: 2, pattern: 2, memory: 0 },
  ]);
  expect(wordsOf("......####")).toMatchObject([
    "A at 2 became Hop at 6, after 2f to be sure and by buffer after 2f.",
    "performed by buffer after 4f",
    { total: 4, pattern: 2, memory: 2 },
  ]);
  expect(wordsOf("###.......")).toMatchObject([
    "A at 2 became Hop at 4, after 2f to be sure and by coyote.",
    "performed by coyote after 2f",
    { total: 2, pattern: 2, memory: 0 },
  ]);
});

test.each([
  ["straight", { a: "..#......." }, "##########", ["A at 2 became Hop at 2."]],
  ["by buffer", { a: "..#......." }, "....######", ["A at 2 became Hop at 4, by buffer after 2f."]],
  ["by coyote", { a: "....#....." }, "###.......", ["A at 4 became Hop at 4, by coyote."]],
  [
    "lost for want of buffer",
    { a: "..#......." },
    ".......###",
    [
      "A at 2 was lost: Footing opened at 7, 2f after the buffer of Hop ran out. Hop: buffer 5f instead of 3f; nothing else changes in this take.",
    ],
  ],
  [
    "lost for want of coyote",
    { a: "......#..." },
    "###.......",
    [
      "A at 6 was lost: Footing was not open for Hop. Hop: coyote 4f instead of 2f; nothing else changes in this take.",
    ],
  ],
  [
    "fired, but nothing waits for it",
    { b: ".#######.." },
    "..........",
    ["B at 1 fired Cling; no move or prompt waits for it."],
  ],
  [
    "a dead stretch",
    { b: ".####....." },
    "..........",
    [
      "B at 1 completed nothing. Tuck lapsed at 5: held too long; Cling lapsed at 5: let go too soon. Tuck: allow 4f instead of 3f; nothing else changes in this take.",
    ],
  ],
] as const)("a press %s", (_what, lanes, footing, sentences) => {
  const sentence = format(KIT, drawTake(lanes, { footing }));
  expect(sentence.map(sentence => sentence.replace(/(Cling[^;.]*)(; )(Tuck[^;.]*)/, "$3; $1"))).toEqual(
    sentences,
  );
});

test("a press no pattern listens to is unheard", () => {
  expect(format(sketchKit("a", {}), drawTake({ a: ".#.." }))).toEqual(["A at 1 was seen by no rule."]);
});

test("a change is priced with its other effects", () => {
  const take = drawTake({ a: "..#.....#......." }, { footing: ".......####....." });
  const kit = { ...KIT, moves: [{ ...KIT.moves![0]!, cooldown: "4f" }] };
  const sentence = format(kit, take);
  expect(sentence[0]).toBe(
    "A at 2 was lost: Footing opened at 7, 2f after the buffer of Hop ran out. Hop: buffer 5f instead of 3f; over this take: Hop is performed once at another time.",
  );
});

test("a prompt's answer is a use", () => {
  const kit: Kit = {
    ...KIT,
    prompts: [{ id: "r", name: "Rope", ask: ["leap"], starts: { at: "1f" }, window: "5f" }],
  };
  expect(format(kit, drawTake({ a: "..#......." }, { footing: "##########" }))).toEqual([
    "A at 2 answered Rope.",
  ]);
});

test("every press of any kit has a fate with a sentence", () => {
  const outcomes = new Set<string>();
  assertUntil(
    fc.property(anyKit, anyTake, (kit, take) => {
      const program = mustCompile(kit);
      const trace = evaluate(program, take);
      for (const fate of readOutcomes(program, trace).presses) {
        outcomes.add(fate.outcome);
        expect(formatFate({ kit, program }, trace, fate)).toMatch(/^\w+ at \d+ .+\.$/);
      }
    }),
    { numRuns: 100 },
    () => outcomes.size === 6,
  );
  expect([...outcomes].sort()).toEqual(["ended", "fired", "lapsed", "lost", "unheard", "used"]);
});

const strip = fc
  .array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 9 })), { minLength: 6, maxLength: 12 })
  .map(runs => runs.map(([on, n]) => (on ? "#" : ".").repeat(n)).join(""));

test("the change that is offered saves the press, and no smaller change of that number does", () => {
  let offers = 0;
  fc.assert(
    fc.property(strip, strip, (a, footing) => {
      const take = drawTake({ a, b: "" }, { footing });
      const program = mustCompile(KIT);
      for (const fate of readOutcomes(program, evaluate(program, take)).presses.filter(
        found => found.outcome === "lost",
      )) {
        const [miss] = findRepairs(KIT, take, fate, { isNearestOnly: true });
        if (!miss) continue;
        offers++;
        const outcome = (frames: number) => {
          const changed = mustCompile(writeAt(KIT, miss.path, `${frames}f`));
          return readOutcomes(changed, evaluate(changed, take)).presses.find(
            other => other.frame === fate.frame,
          )?.outcome;
        };
        const [from, to] = [parseInt(miss.from, 10), parseInt(miss.to, 10)];
        expect(to - from).toBe(miss.byFrames);
        expect(outcome(to)).toBe("used");
        for (let frames = from; frames < to; frames++) expect(outcome(frames)).toBe("lost");
      }
    }),
    { numRuns: 60 },
  );
  expect(offers).toBeGreaterThan(10);
});

const sentences = (kit: Kit, take: ReturnType<typeof drawTake>) => {
  const program = mustCompile(kit);
  const trace = evaluate(program, take);
  return readOutcomes(program, trace).presses.map(fate => formatFate({ kit, program }, trace, fate));
};

test("a spent gate is named with the move that spent it, and when", () => {
  const kit = { ...KIT, moves: [{ ...KIT.moves![0]!, buffer: "0f", spends: ["footing"] }] };
  expect(sentences(kit, drawTake({ a: "..#.#....." }, { footing: "##########" }))[1]).toBe(
    "A at 4 was lost: Footing was open, but Hop had spent it at 2, and Hop needs it.",
  );
});

test("a replaced press names its replacement, and each rule that could use a press names the reason of its loss", () => {
  const kit: Kit = {
    ...KIT,
    patterns: [...KIT.patterns, { id: "other", name: "Other", kind: "press", control: "b" }],
    moves: [
      ...KIT.moves!,
      { id: "roll", name: "Roll", pattern: "other", needs: [{ gate: "footing" }], buffer: "6f" },
      { id: "spin", name: "Spin", pattern: "other", slot: "feet", needs: [{ gate: "footing" }] },
    ],
  };
  const sentence = sentences(kit, drawTake({ b: "..#.......", a: "....#....." }, { footing: ".........." }));
  expect(sentence[0]).toBe(
    "B at 2 was lost: Footing was not open for Spin; Hop, asked for at 4, took the place of Roll.",
  );
});

test("a press hidden by a rule or a prompt names it", () => {
  const keeps = KIT.patterns.map(p => (p.id === "cling" ? { ...p, captures: true } : p));
  const kit = { ...KIT, patterns: keeps as Kit["patterns"] };
  expect(sentences(kit, drawTake({ b: ".#######..", a: "" }))).toEqual([
    "B at 1 fired Cling; Cling keeps B from all other rules.",
  ]);
  const asked: Kit = {
    ...KIT,
    prompts: [{ id: "r", name: "Rope", ask: ["tuck"], starts: { at: "0f" }, window: "9f", captures: ["a"] }],
  };
  expect(sentences(asked, drawTake({ a: "..#......." }, { footing: "##########" }))).toEqual([
    "A at 2 was seen by no rule: Rope keeps A from all other rules while its window is open.",
  ]);
});

test("every number that would have saved a press is offered with its rule, nearest first, and priced over all takes", () => {
  const kit: Kit = {
    ...KIT,
    patterns: [
      ...KIT.patterns,
      { id: "grip", name: "Grip", kind: "hold", control: "b", for: "18f", fire: "reach" },
    ],
    moves: [...KIT.moves!, { id: "hang", name: "Hang", pattern: "grip" }],
  };
  const take = drawTake({ b: ".#####..........####....", a: "" });
  const other = drawTake({ b: ".####...####...", a: "" });
  const program = mustCompile(kit);
  const [fate] = readOutcomes(program, evaluate(program, take)).presses;
  const repairs = findRepairs(kit, take, fate!, { others: [other] });
  expect(repairs.map(repair => `${formatRepair(kit, repair)}; ${formatPrice(kit, repair.price)}`)).toEqual([
    "Cling: hold for 5f instead of 6f; nothing else changes in all 2 takes",
    "Tuck: allow 5f instead of 3f; over all 2 takes: Tuck fires 3 times more; Tuck lapses 3 times less",
    "Grip: hold for 5f instead of 18f; nothing else changes in all 2 takes",
  ]);
});

test("fates of an hour of presses that all lapse are computed in linear time", () => {
  const kit: Kit = sketchKit("a", {
    patterns: [{ id: "t", name: "T", kind: "tap", control: "a", max: "2f" }],
  });
  const program = mustCompile(kit);
  const presses = 100_000;
  const lane = Array.from({ length: presses * 2 }, (_, k): [number, number] => [k * 4 + 1, (k + 1) % 2]);
  const trace = evaluate(program, { ...drawTake({ a: "" }), frames: presses * 8 + 8, lanes: { a: lane } });
  expectWithin(3000, () => {
    const fates = readOutcomes(program, trace).presses;
    expect(fates.length).toBe(presses);
    expect(fates.every(fate => fate.lapses.length === 1)).toBe(true);
  });
});

test("a motion that failed on a direction is offered the gap of that very step, and others of its numbers", () => {
  const kit = sketchKit("udlrp", {
    sticks: [{ id: "s", name: "S", up: "u", down: "d", left: "l", right: "r" }],
    patterns: [
      {
        id: "turn",
        name: "Turn",
        kind: "sequence",
        gap: "4f",
        steps: [{ dir: "s:2" }, { dir: "s:3" }, { dir: "s:6" }, { press: "p" }],
      },
    ],
    moves: [{ id: "burst", name: "Burst", pattern: "turn" }],
  });
  // Down at 2, forward at 9: three frames too late for the second step.
  const take = drawTake({ d: "..#########.......", r: ".........######...", p: "...........#......" });
  const program = mustCompile(kit);
  const { presses } = readOutcomes(program, evaluate(program, take));
  expect(presses[0]).toMatchObject({ outcome: "lapsed" });
  const repairs = findRepairs(kit, take, presses[0]!).map(repair => formatRepair(kit, repair));
  expect(repairs).toEqual([
    "Turn: allow a gap of 7f instead of 4f",
    "Turn, step 2: allow a gap of 7f instead of 4f",
  ]);
  const saved = readOutcomes(
    mustCompile(writeAt(kit, ["patterns", 0, "steps", 1, "gap"], "7f")),
    evaluate(mustCompile(writeAt(kit, ["patterns", 0, "steps", 1, "gap"], "7f")), take),
  );
  // The motion uses both directions and the button.
  expect(saved.presses.map(({ outcome }) => outcome)).toEqual(["used", "used", "used"]);
});
