import { randomBeta, randomBinomial } from "d3-random";
import fc from "fast-check";
import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { expect, test } from "vitest";
import { readTake } from "../../input/inputColumns";
import type { Take } from "../../input/takeSchema";
import type { Kit } from "../../kit/schema";
import { evaluate } from "../../run/run";
import { drawTake, mustCompile, sketchKit } from "../../tests/strips";
import { readOutcomes } from "../outcomes/readOutcomes";
import { prepareBare } from "../prepareRun";
import { STILL } from "./character";
import { shareOverTakes } from "./overTakes";
import { playHandWithPositions } from "./playHand";
import { studyHands, type HandsQuestion } from "./studyHands";

/** A hop that needs the ground; control w walks, and no rule uses it. */
const KIT: Kit = sketchKit("aw", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [
    { id: "p", name: "P", kind: "press", control: "a" },
    { id: "walk", name: "Walk", kind: "press", control: "w" },
  ],
  moves: [{ id: "hop", name: "Hop", pattern: "p", needs: [{ gate: "ground", coyote: "2f" }], buffer: "3f" }],
});

/** The second press is lost, the third too, but for a longer buffer. */
const TAKE: Take = drawTake(
  { a: "...##........##.......##...........", w: "#########.........................." },
  { ground: ".....####..................####....." },
);

function study(takes: readonly Take[], change: Partial<HandsQuestion> = {}) {
  const running = studyHands(
    { kit: KIT, character: STILL, seed: 1, count: 4, ...change },
    takes,
    prepareBare,
  );
  let step = running.next();
  while (!step.done) step = running.next();
  return step.value;
}

test("the denominator is every meant press, those lost in the take too; walking is not among them", () => {
  const { kept, presses, takes } = study([TAKE]);
  expect(presses.map(({ frame, kept, same, lostBy }) => [frame, kept.hits, same?.hits, lostBy])).toEqual([
    [3, 4, 4, []],
    [13, 0, undefined, [0]],
    [22, 0, undefined, [0]],
  ]);
  expect([kept.hits, kept.n, takes]).toEqual([4, 12, 1]);
});

test("a version that saves a lost press gains by that press, of the same presses", () => {
  const longer: Kit = { ...KIT, moves: [{ ...KIT.moves![0]!, buffer: "5f" }] };
  const { kept, moves } = study([TAKE], { kit: longer });
  expect([kept.hits, kept.n]).toEqual([8, 12]);
  expect(moves.map(({ share }) => [share.hits, share.n])).toEqual([[8, 12]]);
});

test("a press that is marked as not meant is not counted, and unwanted where it sets off a move", () => {
  const marked = (x: number) => study([{ ...TAKE, unmeant: { a: [x] } }]);
  expect([marked(13).kept.n, marked(13).unwanted]).toEqual([8, 0]);
  const slip = marked(3);
  expect([slip.kept.hits, slip.kept.n, slip.unwanted]).toEqual([0, 8, 4]);
});

test("doubled presses that set off a move are unwanted; so is a never check that fails", () => {
  const ground = drawTake({ a: `...#${".".repeat(40)}` }, { ground: "#".repeat(44) });
  const { unwanted, kept } = study([ground], { character: { ...STILL, doubledPercent: 100 } });
  expect([unwanted, kept.hits, kept.n]).toEqual([4, 4, 4]);
  const judged = studyHands({ kit: KIT, character: STILL, seed: 1, count: 4, never: [1] }, [ground], kit => ({
    ...prepareBare(kit)!,
    judge: () => [
      { check: 0, ok: false },
      { check: 1, ok: false },
    ],
  }));
  let step = judged.next();
  while (!step.done) step = judged.next();
  expect(step.value.unwanted).toBe(4);
  expect(step.value.checks.map(({ share }) => [share.hits, share.n])).toEqual([
    [0, 4],
    [0, 4],
  ]);
});

test("the sums equal those of a plain count of every press of every play", () => {
  const program = mustCompile(KIT);
  const strip = fc
    .array(fc.tuple(fc.boolean(), fc.integer({ min: 1, max: 8 })), { minLength: 3, maxLength: 8 })
    .map(runs => runs.map(([on, n]) => (on ? "#" : ".").repeat(n)).join(""));
  let used = 0;
  fc.assert(
    fc.property(strip, strip, fc.nat(1000), (a, ground, seed) => {
      const take = drawTake({ a: `.${a}..` }, { ground });
      const character = { ...STILL, spreadMs: 40, lengthPercent: 20 };
      const { kept } = study([take], { character, seed, count: 5 });
      let hits = 0;
      for (let h = 0; h < 5; h++) {
        const played = playHandWithPositions(take, character, seed + h).take;
        // Every press of this take is meant, none is missed or doubled: so each one that is used counts.
        const { presses } = readOutcomes(program, evaluate(program, played));
        hits += presses.filter(({ uses }) => uses.length > 0).length;
      }
      expect(kept.hits).toBe(hits);
      expect(kept.n).toBe(5 * readTake(program, take).controlChange.filter(change => change === 1).length);
      used += hits;
    }),
    { numRuns: 100 },
  );
  expect(used).toBeGreaterThan(100);
});

test("over 30 takes the true share is within the interval for at least 88 of 100 seeds", () => {
  const TRUE_SHARE = 0.9;
  let covered = 0;
  for (let seed = 0; seed < 100; seed++) {
    const generator = xoroshiro128plus(seed * 7919 + 3);
    const uniform = () => uniformFloat64(generator);
    // Players differ: a share of each take's own, around the true one.
    const own = randomBeta.source(uniform)(18, 2);
    const takes = Array.from({ length: 30 }, () => ({
      hits: randomBinomial.source(uniform)(40, own())(),
      n: 40,
    }));
    const { low, high } = shareOverTakes(takes, 200, seed);
    if (low <= TRUE_SHARE && TRUE_SHARE <= high) covered++;
  }
  expect(covered).toBeGreaterThanOrEqual(88);
  expect(covered).toBeLessThan(100);
});

test("one take has the interval over its plays, and nothing to count has none", () => {
  const one = shareOverTakes([{ hits: 90, n: 100 }], 10, 1);
  expect([one.share, one.low < 0.6, one.high < 1]).toEqual([0.9, true, true]);
  expect(shareOverTakes([], 10, 1)).toMatchObject({ n: 0, low: 0, high: 1 });
  expect(
    shareOverTakes(
      [
        { hits: 5, n: 5 },
        { hits: 0, n: 0 },
      ],
      5,
      1,
    ),
  ).toMatchObject({ hits: 5, n: 5 });
});
