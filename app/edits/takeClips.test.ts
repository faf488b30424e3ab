import fc from "fast-check";
import { expect, test } from "vitest";
import type { Take } from "#core";
import { copyStretch, pasteClip, shiftStretch, wipeStretch } from "./takeClips";
import { valueAt } from "./takeEdits";

const TAKE: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  rate: 60,
  frames: 30,
  lanes: {
    a: [
      [2, 1],
      [6, 0],
      [20, 1],
    ],
    b: [
      [4.5, 0.7],
      [5.5, 0.2],
    ],
  },
  gates: {
    g: [
      [0, 1],
      [10, 0],
    ],
  },
};

test("a range is copied with its initial values, and pasted unchanged", () => {
  const clip = copyStretch(TAKE, 4, 8);
  expect(clip).toEqual({
    lengthX: 4,
    lanes: {
      a: [
        [0, 1],
        [2, 0],
      ],
      b: [
        [0, 0],
        [0.5, 0.7],
        [1.5, 0.2],
      ],
    },
    gates: { g: [[0, 1]] },
    speed: [[0, 100]],
    unmeant: {},
  });
  const pasted = pasteClip(TAKE, clip, 12);
  expect(pasted.lanes.a).toEqual([
    [2, 1],
    [6, 0],
    [12, 1],
    [14, 0],
    [20, 1],
  ]);
  expect(pasted.gates?.g).toEqual([
    [0, 1],
    [10, 0],
    [12, 1],
    [16, 0],
  ]);
});

test("pasting past the end makes the take longer; wiping and shifting leave the rest", () => {
  expect(pasteClip(TAKE, copyStretch(TAKE, 0, 10), 25).frames).toBe(35);
  expect(wipeStretch(TAKE, 3, 5).lanes.a).toEqual([
    [2, 1],
    [3, 0],
    [5, 1],
    [6, 0],
    [20, 1],
  ]);
  expect(shiftStretch(TAKE, 1, 7, 3).lanes.a).toEqual([
    [5, 1],
    [9, 0],
    [20, 1],
  ]);
  expect(shiftStretch(TAKE, 1, 7, -9).lanes.a).toEqual([
    [1, 1],
    [5, 0],
    [20, 1],
  ]);
});

test("every place of a take has, after a paste, the clip's value inside and its own outside", () => {
  const lane = fc
    .uniqueArray(fc.integer({ min: 0, max: 40 }), { maxLength: 12 })
    .map(xs => xs.sort((x, y) => x - y).map((x, i): [number, number] => [x, (i + 1) % 2]));
  fc.assert(
    fc.property(
      lane,
      lane,
      fc.nat(20),
      fc.integer({ min: 1, max: 15 }),
      fc.nat(30),
      (a, b, from, length, at) => {
        const source = { ...TAKE, lanes: { a } };
        const target = { ...TAKE, lanes: { a: b } };
        const pasted = pasteClip(target, copyStretch(source, from, from + length), at).lanes.a!;
        for (let x = 0; x < 60; x += 0.5) {
          const expected = x >= at && x < at + length ? valueAt(a, x - at + from, 0) : valueAt(b, x, 0);
          expect(valueAt(pasted, x, 0)).toBe(expected);
        }
        for (let k = 1; k < pasted.length; k++) expect(pasted[k]![0]).toBeGreaterThan(pasted[k - 1]![0]);
      },
    ),
  );
});
