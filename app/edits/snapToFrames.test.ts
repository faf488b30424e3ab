import fc from "fast-check";
import { expect, test } from "vitest";
import { notes, type Take } from "#core";
import { sketchKit } from "../../core/tests/strips";
import { evaluateWith } from "../tests/evaluated";
import { snapToFrames } from "./snapToFrames";
import { copyStretch, pasteClip, shiftStretch } from "./takeClips";
import { paintControl } from "./takeEdits";

const KIT = sketchKit("a", { patterns: [{ id: "p", name: "P", kind: "press", control: "a" }] });
const RATE = 144;
const toX = (frame: number) => (frame * RATE) / 60;

const takeOf = (a: [number, number][], more: Partial<Take> = {}): Take => ({
  ...{ format: "moss-tap/take", version: 1, id: "t", name: "T", rate: RATE, frames: 240, lanes: { a } },
  ...more,
});

/** The edges of the control, on frames of the kit. */
function edgesOf(take: Take): [frame: number, isDown: number][] {
  const { trace } = evaluateWith(KIT, take);
  return Array.from({ length: trace.count }, (_, i) => i).flatMap((i): [number, number][] =>
    trace.kind[i] === notes.edge.code ? [[trace.frame[i]!, notes.edge.isDown(trace, i)]] : [],
  );
}

/** A press from frame 10 to 20, and a gate, of a game at 144 frames a second: 23 lands on frame 10, 47 on frame 20. */
const TAKE = takeOf(
  [
    [23, 1],
    [47, 0],
  ],
  { unmeant: { a: [23] } },
);

test("a press of a game at another rate is moved whole, with its mark", () => {
  const at = (...frames: readonly number[]) => snapToFrames(TAKE, frames, 60, { list: "lanes", id: "a" });
  expect(edgesOf(at(10, 20))).toEqual(edgesOf(TAKE));
  expect(at(10).unmeant).toEqual({ a: [24] });
  expect(at(11)).toBe(TAKE);
  const wiped = paintControl(at(10, 20, 30, 40), "a", toX(10), toX(20), false);
  expect(edgesOf(paintControl(wiped, "a", toX(30), toX(40), true))).toEqual([
    [30, 1],
    [40, 0],
  ]);
});

test("a stretch of such a take is shifted and pasted whole", () => {
  const snapped = snapToFrames(TAKE, [10, 20, 30, 40], 60, "all");
  const shifted = shiftStretch(snapped, toX(10), toX(20), toX(20));
  expect(edgesOf(shifted)).toEqual([
    [30, 1],
    [40, 0],
  ]);
  expect(shifted.unmeant).toEqual({ a: [72] });
  expect(edgesOf(pasteClip(snapped, copyStretch(snapped, toX(10), toX(20)), toX(30)))).toEqual([
    [10, 1],
    [20, 0],
    [30, 1],
    [40, 0],
  ]);
});

test("changes at frames are where they were, in lanes that are not asked for too", () => {
  const whole = takeOf([[24, 1]], { gates: { g: [[25, 1]] }, speed: [[23, 50]] });
  expect(snapToFrames(whole, [10, 11], 60, { list: "lanes", id: "a" })).toEqual(whole);
  expect(snapToFrames(whole, [10, 11], 60, "speed")).toEqual({ ...whole, speed: [[24, 50]] });
  expect(snapToFrames(whole, [10, 11], 60, "all").gates!.g![0]![0]).toBeCloseTo(toX(11));
  expect(snapToFrames({ ...whole, rate: 60, speed: [] }, [10, 23, 24], 60, "all").lanes).toBe(whole.lanes);
});

test("a take brought to frames is judged as before, if no two changes land on one frame", () => {
  const spaced = fc
    .uniqueArray(fc.integer({ min: 0, max: 75 }), { maxLength: 12 })
    .map(xs => xs.sort((p, q) => p - q).map((x, k): [number, number] => [x * 3, (k + 1) % 2]));
  fc.assert(
    fc.property(spaced, fc.array(fc.nat(100), { maxLength: 6 }), (lane, frames) => {
      expect(edgesOf(snapToFrames(takeOf(lane), frames, 60, "all"))).toEqual(edgesOf(takeOf(lane)));
    }),
  );
});
