import { randomNormal } from "d3-random";
import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { expect, test } from "vitest";
import { readTake } from "../../input/inputColumns";
import type { Take } from "../../input/takeSchema";
import type { Kit } from "../../kit/schema";
import { evaluate } from "../../run/run";
import { mustCompile, sketchKit } from "../../tests/strips";
import { prepareBare } from "../prepareRun";
import { STILL, type Character } from "./character";
import { fitCharacter } from "./fitCharacter";
import { playHand } from "./playHand";
import { studyHands } from "./studyHands";

const KIT: Kit = sketchKit("a", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  moves: [{ id: "hop", name: "Hop", pattern: "p", needs: [{ gate: "ground" }], buffer: "2f" }],
});
const PROGRAM = mustCompile(KIT);
const EVERY = 60;

/** A take of a player who presses as the ground opens, with a bias and a spread in ms. */
function playerTake(id: string, biasMs: number, spreadMs: number, presses: number, seed: number): Take {
  const generator = xoroshiro128plus(seed);
  const offset = randomNormal.source(() => uniformFloat64(generator))(biasMs, spreadMs);
  const starts = Array.from({ length: presses }, (_, k) => EVERY * k + 40);
  return {
    ...{ format: "moss-tap/take", version: 1, id, name: id, rate: 60, frames: EVERY * presses + 60 },
    lanes: {
      a: starts.flatMap(at => {
        const x = at + (offset() * 60) / 1000;
        return [
          [x, 1],
          [x + 5, 0],
        ] as [number, number][];
      }),
    },
    gates: {
      ground: starts.flatMap(
        at =>
          [
            [at, 1],
            [at + 20, 0],
          ] as [number, 0 | 1][],
      ),
    },
  };
}

const fit = (takes: readonly Take[]) =>
  fitCharacter(
    PROGRAM,
    takes.map(take => ({ take, columns: readTake(PROGRAM, take), trace: evaluate(PROGRAM, take) })),
  );

function keptOf(takes: readonly Take[], character: Character, more: object = {}) {
  const running = studyHands({ kit: KIT, character, seed: 5, count: 4, ...more }, takes, prepareBare);
  let step = running.next();
  while (!step.done) step = running.next();
  return step.value;
}

/** The players: bias and spread in ms, and the seeds of their takes. With 100 seeds: 91, 95 and 89 shares within. */
const PLAYERS = [
  { biasMs: 0, spreadMs: 20, seeds: 2 },
  { biasMs: -15, spreadMs: 35, seeds: 2 },
  { biasMs: 25, spreadMs: 50, seeds: 2 },
];

test("a fitted character keeps what its player keeps: scatter is not added to scatter, and the interval has the fit's", () => {
  let within = 0;
  for (const { biasMs, spreadMs, seeds } of PLAYERS) {
    const long = [playerTake("long", biasMs, spreadMs, 3000, 99)];
    const truth = keptOf(long, STILL, { count: 1 }).kept.share;
    let [own, scattered] = [0, 0];
    for (let seed = 0; seed < seeds; seed++) {
      const takes = Array.from({ length: 30 }, (_, k) =>
        playerTake(`t${k}`, biasMs, spreadMs, 6, seed * 1000 + k),
      );
      const { character, aims, onset } = fit(takes);
      expect(Math.abs(character.biasMs - biasMs)).toBeLessThan(15);
      expect(Math.abs(character.spreadMs - spreadMs)).toBeLessThan(10);
      expect(onset.presses).toBeGreaterThan(170);
      const { kept, aimed, presses } = keptOf(takes, character, { aims });
      expect(aimed).toBeGreaterThan(presses.length - 5);
      own += kept.share / seeds;
      scattered += keptOf(takes, { ...character, biasMs: 0 }).kept.share / seeds;
      if (kept.low <= truth && truth <= kept.high) within++;
    }
    expect(Math.abs(own - truth)).toBeLessThan(0.03);
    expect(scattered).toBeLessThan(own - 0.02);
  }
  expect(within).toBeGreaterThanOrEqual(5);
});

test("a press is aimed at the mean of its like; a press that nothing judged has no aim", () => {
  const takes = [-3, 1].map((late, k): Take => {
    const base = playerTake(`t${k}`, 0, 0, 1, 1);
    return {
      ...base,
      frames: 240,
      lanes: {
        a: [
          [40 + late, 1],
          [50, 0],
          [200, 1],
          [205, 0],
        ],
      },
    };
  });
  const { character, aims } = fit(takes);
  // Offsets −50 and 17 ms: mean −17 ms.
  expect(character.biasMs).toBe(-17);
  const shifts = takes.map(({ id }) =>
    aims
      .get(id)!
      .get("a")!
      .map(aim => aim && Math.round(aim.shiftMs)),
  );
  expect(shifts).toEqual([[33], [-33]]);
  const played = takes.map(take => playHand(take, { ...STILL, biasMs: 50 }, 1, aims.get(take.id)));
  // Aimed a frame before the opening, without the bias, which the recording has; the other where it was recorded.
  expect(played.map(({ lanes }) => lanes.a!.map(([x]) => Math.round(x)))).toEqual([
    [39, 52, 200, 205],
    [39, 48, 200, 205],
  ]);
  // A take of another player gets the bias: three frames at 60.
  expect(playHand(takes[0]!, { ...STILL, biasMs: 50 }, 1).lanes.a![0]![0]).toBe(40);
});

test("steps are aimed at their mean distance, and answers at the target of the prompt", () => {
  const kit: Kit = sketchKit("ab", {
    patterns: [
      { id: "s", name: "S", kind: "sequence", gap: "20f", steps: [{ press: "a" }, { press: "b" }] },
      { id: "q", name: "Q", kind: "press", control: "a" },
    ],
    moves: [{ id: "combo", name: "Combo", pattern: "s" }],
    prompts: [{ id: "now", name: "Now", ask: ["q"], starts: { at: "100f" }, window: "40f", target: "20f" }],
  });
  const program = mustCompile(kit);
  const takes = [8, 12].map((gap, k): Take => ({
    ...{ format: "moss-tap/take", version: 1, id: `t${k}`, name: "", rate: 60, frames: 200 },
    lanes: {
      a: [
        [20, 1],
        [22, 0],
        [114 + gap, 1],
        [130, 0],
      ],
      b: [
        [20 + gap, 1],
        [40, 0],
      ],
    },
  }));
  const runs = takes.map(take => ({
    take,
    columns: readTake(program, take),
    trace: evaluate(program, take),
  }));
  const { character, aims } = fitCharacter(program, runs);
  const shiftsOf = (control: string) =>
    takes.map(({ id }) =>
      aims
        .get(id)!
        .get(control)!
        .map(aim => aim && Math.round(aim.shiftMs * 0.06)),
    );
  expect(shiftsOf("b")).toEqual([[2], [-2]]);
  expect(shiftsOf("a")).toEqual([
    [undefined, 2],
    [undefined, -2],
  ]);
  // The answers come 2 frames after the target on one take, and 6 on the other.
  expect(character.biasMs).toBe(67);
});
