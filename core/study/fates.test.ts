import fc from "fast-check";
import { expect, test } from "vitest";
import type { Kit } from "../kit/schema";
import { evaluate } from "../run/run";
import { writeAt } from "../kit/editAt";
import { anyKit, anyTake } from "../tests/arbitraries";
import { drawTake, mustCompile, sketchKit } from "../tests/strips";
import { listFates } from "./fates";
import { formatFate, formatNearestMiss } from "./formatFate";
import { findNearestMiss } from "./nearestMiss";

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

function tell(kit: Kit, take: ReturnType<typeof drawTake>) {
  const program = mustCompile(kit);
  const trace = evaluate(program, take);
  return listFates(program, trace).map(fate => {
    const miss = findNearestMiss(kit, take, fate);
    return formatFate({ kit, program }, trace, fate) + (miss ? ` ${formatNearestMiss(miss)}.` : "");
  });
}

test.each([
  ["straight", { a: "..#......." }, "##########", ["A at 2 became Hop at 2."]],
  ["by buffer", { a: "..#......." }, "....######", ["A at 2 became Hop at 4, remembered 2f."]],
  ["by coyote", { a: "....#....." }, "###.......", ["A at 4 became Hop at 4, forgiven."]],
  [
    "lost for want of buffer",
    { a: "..#......." },
    ".......###",
    [
      "A at 2 was lost: Footing opened at 7, 2f after Hop forgot it. Remember for 5f instead of 3f: nothing else changes.",
    ],
  ],
  [
    "lost for want of coyote",
    { a: "......#..." },
    "###.......",
    ["A at 6 was lost: Footing was not open for Hop. Forgive for 4f instead of 2f: nothing else changes."],
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
      "B at 1 came to nothing. Tuck lapsed at 5: held too long; Cling lapsed at 5: let go too soon. Allow 4f instead of 3f: nothing else changes.",
    ],
  ],
] as const)("a press %s", (_what, lanes, footing, sentences) => {
  const told = tell(KIT, drawTake(lanes, { footing }));
  expect(told.map(sentence => sentence.replace(/(Cling[^;.]*)(; )(Tuck[^;.]*)/, "$3; $1"))).toEqual(
    sentences,
  );
});

test("a press no pattern listens to was heard by nothing", () => {
  expect(tell(sketchKit("a", {}), drawTake({ a: ".#.." }))).toEqual(["A at 1 was heard by nothing."]);
});

test("what else a change would alter is told with it", () => {
  const take = drawTake({ a: "..#.....#......." }, { footing: ".......####....." });
  const kit = { ...KIT, moves: [{ ...KIT.moves![0]!, cooldown: "4f" }] };
  const told = tell(kit, take);
  expect(told[0]).toBe(
    "A at 2 was lost: Footing opened at 7, 2f after Hop forgot it. Remember for 5f instead of 3f: also 1 performed at another time.",
  );
});

test("a prompt's answer is a use", () => {
  const kit: Kit = {
    ...KIT,
    prompts: [{ id: "r", name: "Rope", ask: ["leap"], starts: { at: "1f" }, window: "5f" }],
  };
  expect(tell(kit, drawTake({ a: "..#......." }, { footing: "##########" }))).toEqual([
    "A at 2 answered Rope.",
  ]);
});

test("every press of any kit has a fate that can be said", () => {
  const outcomes = new Set<string>();
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      const program = mustCompile(kit);
      const trace = evaluate(program, take);
      for (const fate of listFates(program, trace)) {
        outcomes.add(fate.outcome);
        expect(formatFate({ kit, program }, trace, fate)).toMatch(/^\w+ at \d+ .+\.$/);
      }
    }),
    { numRuns: 100 },
  );
  expect([...outcomes].sort()).toEqual(["fired", "lapsed", "lost", "unheard", "used"]);
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
      for (const fate of listFates(program, evaluate(program, take)).filter(
        found => found.outcome === "lost",
      )) {
        const miss = findNearestMiss(KIT, take, fate);
        if (!miss) continue;
        offers++;
        const outcome = (frames: number) => {
          const changed = mustCompile(writeAt(KIT, miss.path, `${frames}f`));
          return listFates(changed, evaluate(changed, take)).find(other => other.frame === fate.frame)
            ?.outcome;
        };
        const [from, to] = [parseInt(miss.from, 10), parseInt(miss.to, 10)];
        expect(to - from).toBe(miss.missFrames);
        expect(outcome(to)).toBe("used");
        for (let frames = from; frames < to; frames++) expect(outcome(frames)).toBe("lost");
      }
    }),
    { numRuns: 60 },
  );
  expect(offers).toBeGreaterThan(20);
});
