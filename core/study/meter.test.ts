import fc from "fast-check";
import { expect, test } from "vitest";
import { createFrameInput } from "../input/frameInput";
import { createInputCursor, loadInput, readTake } from "../input/inputColumns";
import type { Pattern } from "../kit/schema";
import { createState } from "../program/state";
import { step } from "../run/step";
import { PATTERN_KIND_NAMES, traitsOf } from "../patterns/recordOf";
import { anyKit, anyTake } from "../tests/arbitraries";
import { assertUntil } from "../tests/assertUntil";
import { expectSame } from "../tests/expectSame";
import { mustCompile, sketchKit } from "../tests/strips";
import { createTrace } from "../trace/trace";
import { readMeter, type Meter } from "./meter";

/** Returns the meter of one pattern on every frame of presses drawn on control a. */
function meters(pattern: Pattern, strip: string): Meter[] {
  const program = mustCompile(sketchKit("a", { patterns: [pattern] }));
  const state = createState(program);
  const trace = createTrace(60);
  const input = createFrameInput(1, 0);
  return [...strip].map((mark, f) => {
    const isDown = mark === "#";
    const was = strip[f - 1] === "#";
    input.changeCount = isDown === was ? 0 : 1;
    input.changes[0] = isDown ? 1 : 0;
    step(program, state, input, trace);
    return readMeter(program, state, 0);
  });
}

test("a hold's meter grows on every frame and is full while it is sustained", () => {
  const read = meters(
    { id: "h", name: "H", kind: "hold", control: "a", for: "4f", fire: "reach" },
    ".######.",
  );
  expect(read.map(meter => meter.ratio)).toEqual([0, 0, 0.25, 0.5, 0.75, 0, 1, 0]);
  expect(read[3]!.ageFrames).toBe(2);
});

test("a charge's meter has its level and value on the way", () => {
  const charge: Pattern = {
    id: "c",
    name: "C",
    kind: "charge",
    control: "a",
    full: "4f",
    levels: [{ name: "half", at: "2f" }],
    output: [10, 20],
    fire: "release",
  };
  const read = meters(charge, ".#####.");
  expect(read.slice(1, 6).map(meter => [meter.ratio, meter.level, meter.value])).toEqual([
    [0, 0, 10],
    [0.25, 0, 12.5],
    [0.5, 1, 15],
    [0.75, 1, 17.5],
    [1, 1, 20],
  ]);
});

test("taps count those made so far, and a fire has made them all", () => {
  const taps: Pattern = {
    id: "t",
    name: "T",
    kind: "taps",
    control: "a",
    count: 3,
    gap: "4f",
    answer: "nth",
  };
  const read = meters(taps, ".#.#.#..");
  expect(read.map(meter => meter.made)).toEqual([0, 1, 1, 2, 2, 3, 0, 0]);
  expect(read[3]).toMatchObject({ of: 3, ratio: 2 / 3 });
});

test("a sequence counts its steps, and starts from nothing when it lapses", () => {
  const sequence: Pattern = {
    id: "s",
    name: "S",
    kind: "sequence",
    gap: "3f",
    steps: [{ press: "a" }, { release: "a" }, { press: "a" }, { release: "a" }],
  };
  const read = meters(sequence, ".#.#......");
  expect(read.slice(0, 4).map(meter => meter.made)).toEqual([0, 1, 2, 3]);
  expect(read[4]!.made).toBe(4);
  expect(read.at(-1)!.made).toBe(0);
});

test("a mash counts its presses, a chord its buttons and then the time it is held", () => {
  const input = createFrameInput(2, 0);
  const read = (pattern: Pattern, strips: readonly [string, string]) => {
    const program = mustCompile(sketchKit("ab", { patterns: [pattern] }));
    const state = createState(program);
    const trace = createTrace(60);
    return [...strips[0]].map((_, f) => {
      const changed = strips.flatMap((strip, c) => {
        const isDown = strip[f] === "#";
        return isDown === (strip[f - 1] === "#") ? [] : [c * 2 + (isDown ? 1 : 0)];
      });
      input.changeCount = changed.length;
      changed.forEach((change, k) => (input.changes[k] = change));
      step(program, state, input, trace);
      return readMeter(program, state, 0);
    });
  };
  const mash: Pattern = { id: "m", name: "M", kind: "mash", controls: ["a"], count: 4, within: "20f" };
  expect(read(mash, [".#.#.#.#.", "........."]).map(({ made, of }) => `${made}/${of}`)).toEqual([
    "0/4",
    "1/4",
    "1/4",
    "2/4",
    "2/4",
    "3/4",
    "3/4",
    "4/4",
    "0/4",
  ]);
  const chord: Pattern = { id: "c", name: "C", kind: "chord", controls: ["a", "b"], spread: "3f", for: "4f" };
  expect(read(chord, [".#######", "..######"]).map(({ ratio }) => ratio)).toEqual([
    0, 0.5, 0, 0.25, 0.5, 0.75, 0, 1,
  ]);
});

test("every kind of pattern that declares a meter fills one on random kits, and no other does", () => {
  const filled = new Set<string>();
  const declared = PATTERN_KIND_NAMES.filter(kind => traitsOf(kind).meter !== "none");
  assertUntil(
    fc.property(anyKit, anyTake, (kit, take) => {
      const program = mustCompile(kit);
      const columns = readTake(program, take);
      const cursor = createInputCursor(program, columns);
      const state = createState(program);
      const trace = createTrace(program.rateHz);
      for (let f = 0; f < columns.frames; f++) {
        step(program, state, loadInput(cursor, f), trace);
        kit.patterns.forEach(({ kind }, i) => {
          const { ratio } = readMeter(program, state, i);
          expectSame(ratio >= 0 && ratio <= 1, true);
          if (ratio > 0 && ratio < 1) filled.add(kind);
        });
      }
    }),
    { numRuns: 120 },
    () => filled.size >= declared.length,
  );
  expect([...filled].sort()).toEqual([...declared].sort());
});
