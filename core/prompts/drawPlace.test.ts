import { expect, test } from "vitest";
import { drawTake, play, sketchKit } from "../tests/strips";
import { drawPlace } from "./drawPlace";

test("the draw is the murmur3 finaliser: values worked out by hand with whole numbers of any size", () => {
  const size = 2n ** 32n;
  const slowly = (seed: number, k: number) => {
    let h = (BigInt(seed) + 0x9e3779b9n * BigInt(k + 1)) % size;
    h = ((h ^ (h >> 16n)) * 0x85ebca6bn) % size;
    h = ((h ^ (h >> 13n)) * 0xc2b2ae35n) % size;
    return h ^ (h >> 16n);
  };
  for (const seed of [0, 1, 7, 0x7fffffff, 0xffffffff])
    for (const k of [0, 1, 2, 500_000])
      for (const count of [1, 2, 3, 64])
        expect(drawPlace(seed, k, count)).toBe(Number(slowly(seed, k) % BigInt(count)));
});

test("each showing asks for one of its answers, and the others are wrong", () => {
  const kit = sketchKit("ab", {
    gates: [{ id: "g", name: "g" }],
    patterns: [
      { id: "p", name: "p", kind: "press", control: "a" },
      { id: "q", name: "q", kind: "press", control: "b" },
    ],
    prompts: [
      { id: "r", name: "r", ask: ["p", "q"], draw: 3, wrong: "fail", starts: { gate: "g" }, window: "3f" },
    ],
  });
  const run = play(kit, drawTake({ a: "..#...#...#...#.." }, { g: ".##.##..##..##..." }));
  const shown = run.of("prompt").flatMap(event => (event.asks === undefined ? [] : [event.asks]));
  expect(shown).toEqual([0, 1, 2, 3].map(k => ["p", "q"][drawPlace(3, k, 2)]));
  const outcomes = run.of("prompt").filter(({ outcome }) => outcome === "ok" || outcome === "failed");
  expect(outcomes.map(({ outcome, why }) => why ?? outcome)).toEqual(
    shown.map(asked => (asked === "p" ? "ok" : "wrong")),
  );
  expect(new Set(shown).size).toBe(2);
});

test("a grade reaches as far as its own sides: early before the target, late after it", () => {
  const kit = sketchKit("a", {
    patterns: [{ id: "p", name: "p", kind: "press", control: "a" }],
    prompts: [
      {
        id: "r",
        name: "r",
        ask: ["p"],
        starts: { at: "0f" },
        window: "20f",
        target: "10f",
        grades: [{ name: "gold", within: "2f", early: "0f", late: "4f" }],
      },
    ],
  });
  const outcome = (at: number) =>
    play(kit, drawTake({ a: `${".".repeat(at)}#${".".repeat(24 - at)}` }))
      .of("prompt")
      .at(-1)!.outcome;
  expect([9, 10, 14, 15].map(outcome)).toEqual(["ok", "gold", "gold", "ok"]);
});
