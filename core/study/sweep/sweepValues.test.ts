import fc from "fast-check";
import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { anyTake } from "../../tests/arbitraries";
import { anyPresses, listShared } from "../../tests/allowances";
import { assertUntil } from "../../tests/assertUntil";
import { drawTake, sketchKit } from "../../tests/strips";
import { CHARACTERS } from "../hands/character";
import { prepareBare, type PrepareRun } from "../prepareRun";
import { mergePoints, medianDelayOf, type SweepPoint } from "./sweepPoint";
import { sweepValues, type SweepQuestion } from "./sweepValues";

const runs = Number(process.env.RUNS ?? 60);

function finish<T, R>(running: Generator<T, R>): R {
  let step = running.next();
  while (!step.done) step = running.next();
  return step.value;
}

test("points of shared runs are those of each value run alone, with their losses by reason", () => {
  let ran = 0;
  let shared = 0;
  const reasons = new Set<string>();
  const counting: PrepareRun = kit => {
    const ready = prepareBare(kit);
    return (
      ready && {
        ...ready,
        run(columns, waits) {
          ran++;
          return ready.run(columns, waits);
        },
      }
    );
  };
  const property = fc.property(anyPresses, anyTake, fc.nat(), (kit, take, pick) => {
    const all = listShared(kit);
    const swept = all[pick % all.length]!;
    const values = Array.from({ length: 16 }, (_, k) => (swept.kind === "group" ? k * 25 : k));
    const points = (areChecksDecided: boolean) => {
      const before = ran;
      const found = finish(sweepValues({ kit, swept, values, areChecksDecided }, [take], counting));
      return { found, ran: ran - before };
    };
    const [plain, quick] = [points(false), points(true)];
    expect(quick.found).toEqual(plain.found);
    if (quick.ran < plain.ran) shared++;
    for (const { lost } of plain.found) for (const why of Object.keys(lost)) reasons.add(why);
  });
  assertUntil(property, { numRuns: runs }, () => shared > runs / 3 && reasons.size > 5);
  expect(shared).toBeGreaterThan(runs / 3);
  expect(reasons.size).toBeGreaterThan(3);
});

const HOP: Kit = sketchKit("a", {
  gates: [
    { id: "ground", name: "Ground" },
    { id: "wet", name: "Wet" },
  ],
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  moves: [{ id: "hop", name: "Hop", pattern: "p", needs: [{ gate: "ground" }], bans: ["wet"], buffer: "2f" }],
});
const BUFFER = { kind: "length", path: ["moves", 0, "buffer"], unit: "f" } as const;

test("a request that runs out between two values that decide the same is lost for the reason of its frame", () => {
  // The ground is there on 5 and 6, but wet; the take ends on 12.
  const take = drawTake({ a: "..#.........." }, { ground: ".....##......", wet: ".....##......" });
  let ran = 0;
  const prepare: PrepareRun = kit => {
    const ready = prepareBare(kit)!;
    return { ...ready, run: (columns, waits) => (ran++, ready.run(columns, waits)) };
  };
  const values = [0, 1, 2, 3, 4, 5, 6, 20];
  const points = finish(
    sweepValues({ kit: HOP, swept: BUFFER, values, areChecksDecided: true }, [take], prepare),
  );
  const [gate, ban] = [{ gate: 1 }, { ban: 1 }];
  expect(points.map(({ lost }) => lost)).toEqual([gate, gate, gate, ban, ban, gate, gate, {}]);
  expect(points.map(({ lostPresses }) => lostPresses)).toEqual([1, 1, 1, 1, 1, 1, 1, 0]);
  // The present value and both ends.
  expect(ran).toBe(3);
});

test("a check that names losses makes every value be run", () => {
  let ran = 0;
  const prepare: PrepareRun = kit => {
    const ready = prepareBare(kit)!;
    return { ...ready, run: (columns, waits) => (ran++, ready.run(columns, waits)) };
  };
  const take = drawTake({ a: "..#.........." }, { ground: ".....##......" });
  finish(
    sweepValues({ kit: HOP, swept: BUFFER, values: [3, 4, 5], areChecksDecided: false }, [take], prepare),
  );
  expect(ran).toBe(4);
});

test("halves of the repetitions, and every other value, merge to the points of one sweep", () => {
  const take = drawTake({ a: "..#...##..#...." }, { ground: ".....##...###.." });
  const sweep = (change: Partial<SweepQuestion>): readonly SweepPoint[] =>
    finish(
      sweepValues(
        {
          ...{ kit: HOP, swept: BUFFER, values: [0, 1, 2, 3, 4, 5], areChecksDecided: true },
          hands: { character: CHARACTERS[1]!, seed: 5, count: 7 },
          ...change,
        },
        [take, { ...take, id: "second" }],
        prepareBare,
      ),
    );
  const hands = (seed: number, count: number) => ({ hands: { character: CHARACTERS[1]!, seed, count } });
  const whole = sweep({});
  expect(mergePoints([...sweep(hands(5, 4)), ...sweep(hands(9, 3))])).toEqual(whole);
  expect(mergePoints([...sweep({ values: [0, 2, 4] }), ...sweep({ values: [1, 3, 5] })])).toEqual(whole);
  expect(whole[3]).toMatchObject({ runs: 14, repetitions: 7 });
});

test("the median delay is that of the list of delays", () => {
  const median = (...delays: readonly (readonly [frames: number, count: number])[]) =>
    medianDelayOf({ delays: new Map(delays) });
  expect(median()).toBeUndefined();
  expect(median([0, 2], [2, 1])).toBe(0);
  expect(median([2, 1], [3, 1], [0, 2])).toBe(1);
  expect(median([1, 1], [200_000, 3])).toBe(200_000);
});

test("a sweep counts the showings of the prompts that its number decides, answered and not", () => {
  const kit = sketchKit("ab", {
    patterns: [
      { id: "h", name: "H", kind: "hold", control: "a", for: "4f", fire: "reach" },
      { id: "p", name: "P", kind: "press", control: "b" },
    ],
    prompts: [
      { id: "long", name: "Long", ask: ["h"], starts: { at: "0f" }, window: "12f" },
      { id: "short", name: "Short", ask: ["p"], starts: { at: "0f" }, window: "12f" },
    ],
  });
  const take = drawTake({ a: "..######.........", b: ".................." });
  const sweep = (of: Kit, path: readonly (string | number)[]) =>
    finish(
      sweepValues(
        { kit: of, swept: { kind: "length", path, unit: "f" }, values: [2, 6, 7] },
        [take],
        prepareBare,
      ),
    ).map(({ answered, unanswered }) => [answered, unanswered]);
  // Held six frames: the hold of seven is not reached. The other prompt does not depend on it.
  expect(sweep(kit, ["patterns", 0, "for"])).toEqual([
    [1, 0],
    [1, 0],
    [0, 1],
  ]);
  expect(sweep(kit, ["prompts", 1, "window"])).toEqual([
    [0, 1],
    [0, 1],
    [0, 1],
  ]);
  const jump = { id: "hop", name: "Hop", pattern: "p", buffer: "1f" };
  expect(sweep({ ...kit, moves: [jump] }, ["moves", 0, "buffer"])[0]).toEqual([0, 0]);
});

test("a sweep of two numbers counts the rules of both", () => {
  const move = (id: string) => ({ id, name: id, pattern: id, needs: [{ gate: "ground" }], buffer: "0f" });
  const kit = sketchKit("ab", {
    gates: [{ id: "ground", name: "Ground" }],
    patterns: [
      { id: "hop", name: "Hop", kind: "press", control: "a" },
      { id: "dig", name: "Dig", kind: "press", control: "b" },
    ],
    moves: [move("hop"), { ...move("dig"), slot: "arms" }],
  });
  const take = drawTake({ a: "..##.......", b: "....##....." }, { ground: ".......####" });
  const buffer = (m: number) => ({ kind: "length", path: ["moves", m, "buffer"], unit: "f" }) as const;
  const lost = (hop: number, dig: number) => {
    const besides = [{ swept: buffer(1), value: dig }];
    const point = finish(
      sweepValues({ kit, swept: buffer(0), values: [hop], besides }, [take], prepareBare),
    )[0]!;
    return point.lostPresses;
  };
  expect([lost(0, 0), lost(9, 0), lost(0, 9), lost(9, 9)]).toEqual([2, 1, 1, 0]);
});
