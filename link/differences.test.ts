import fc from "fast-check";
import { expect, test } from "vitest";
import {
  compareActs,
  countDifferences,
  createComparison,
  formatDifference,
  listDifferences,
  pairFrames,
  type PairedAct,
} from ".";

const LIMIT = 5;

/** Returns the best number of pairs and their total distance, by trying every pairing in order. */
function bestByTrying(game: readonly number[], rules: readonly number[]): [pairs: number, distance: number] {
  if (game.length === 0 || rules.length === 0) return [0, 0];
  const [first, ...rest] = game;
  let best = bestByTrying(rest, rules);
  rules.forEach((frame, j) => {
    const apart = Math.abs(frame - first!);
    if (apart > LIMIT) return;
    const [pairs, distance] = bestByTrying(rest, rules.slice(j + 1));
    if (pairs + 1 > best[0] || (pairs + 1 === best[0] && distance + apart < best[1]))
      best = [pairs + 1, distance + apart];
  });
  return best;
}

const rising = fc
  .array(fc.integer({ min: 1, max: 4 }), { maxLength: 7 })
  .map(gaps => gaps.map((_, n) => gaps.slice(0, n + 1).reduce((a, b) => a + b)));

test("pairs are as many and as near as can be, in order and within the limit", () => {
  fc.assert(
    fc.property(rising, rising, (game, rules) => {
      const partners = pairFrames(game, rules, LIMIT);
      const pairs = partners.flatMap((j, i) => (j < 0 ? [] : [[i, j] as const]));
      const apart = pairs.map(([i, j]) => Math.abs(game[i]! - rules[j]!));
      expect(Math.max(0, ...apart)).toBeLessThanOrEqual(LIMIT);
      pairs.slice(1).forEach(([, j], n) => expect(j).toBeGreaterThan(pairs[n]![1]));
      expect([pairs.length, apart.reduce((a, b) => a + b, 0)]).toEqual(bestByTrying(game, rules));
    }),
    { numRuns: 1000 },
  );
});

test("an hour of acts on every third frame is paired at once", () => {
  const game = Array.from({ length: 72_000 }, (_, n) => n * 3 + 1);
  const partners = pairFrames(
    game,
    game.map(frame => frame + 1),
    30,
  );
  expect(partners.every((j, i) => j === i)).toBe(true);
});

const performed = (f: number, id: string) => ({ f, kind: "performed", id, pattern: "p" }) as never;

test("acts of a game at another rate land on frames of the kit, and each difference is named", () => {
  // At 30 a second, the game's frame 10 is frame 20 of the kit.
  const acts = [
    { f: 10, id: "hop" },
    { f: 30, id: "hop" },
    { f: 50, id: "roll" },
    { f: 100, id: "hop" },
  ];
  const events = [performed(20, "hop"), performed(58, "hop"), performed(131, "roll"), performed(160, "hop")];
  const pairs = compareActs(acts, events, 60, 30);
  expect(countDifferences(pairs)).toEqual({ agreed: 1, apart: 1, onlyGame: 2, onlyRules: 2 });
  expect(
    listDifferences(pairs).map(pair => [`${pair.id}: ${formatDifference(pair)}`, pair.game ?? pair.rules]),
  ).toEqual([
    ["roll: only the game", 100],
    ["roll: only the rules", 131],
    ["hop: only the rules", 160],
    ["hop: only the game", 200],
    ["hop: the game 2f later than the rules", 60],
  ]);
  // Half a second apart is a pair, a frame more is not.
  expect(countDifferences(compareActs([{ f: 0, id: "x" }], [performed(30, "x")], 60, 60)).apart).toBe(1);
  expect(countDifferences(compareActs([{ f: 0, id: "x" }], [performed(31, "x")], 60, 60)).apart).toBe(0);
});

test("acts compared while they come give the pairs of the whole, each as soon as nothing can change it", () => {
  const acts = fc.array(fc.record({ f: fc.nat(600), id: fc.constantFrom("a", "b") }), { maxLength: 30 });
  fc.assert(
    fc.property(acts, acts, (game, rules) => {
      const events = rules.sort((a, b) => a.f - b.f).map(({ f, id }) => performed(f, id));
      const whole = compareActs(
        game.sort((a, b) => a.f - b.f),
        events,
        60,
        60,
      );
      const comparison = createComparison(60);
      const settled: PairedAct[] = [];
      for (let frame = 0; frame <= 640; frame++) {
        for (const { f, id } of game) if (f === frame) comparison.addAct(id, f);
        for (const { f, id } of rules) if (f === frame) comparison.addRules(id, f);
        settled.push(...comparison.settle(frame));
      }
      const sorted = (pairs: readonly PairedAct[]) => pairs.map(pair => JSON.stringify(pair)).sort();
      expect(sorted(settled)).toEqual(sorted(whole));
    }),
    { numRuns: 200 },
  );
});
