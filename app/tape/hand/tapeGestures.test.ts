import { expect, test } from "vitest";
import type { TapeListener } from "./tapeListener";
import {
  beginBrush,
  beginPan,
  beginPinch,
  beginPull,
  beginRow,
  beginScrub,
  beginSweep,
  rowUnder,
  type TapeSurface,
} from "./tapeGestures";
import { addMark, addSpan, createRow, EMPTY_TAPE, type TapeModel } from "../model/tapeRows";
import { LABEL_PX, ROW_PX, RULER_PX, type TapeView } from "../model/tapeView";

const VIEW: TapeView = { firstFrame: 10, pxPerFrame: 8, widthPx: 1000, heightPx: 300, scrollPx: 0 };

function sketch(): TapeModel {
  const leap = createRow("controls", { id: "leap", name: "Leap" });
  addSpan(leap, 20, 26, "down");
  const brace = createRow("controls", { id: "brace", name: "Brace" });
  const hop = createRow("moves", { id: "hop", name: "Hop" });
  addMark(hop, 30, "performed", 7, 28);
  return { ...EMPTY_TAPE, frames: 100, rows: [leap, brace, hop] };
}

/** Creates a surface that records its calls. */
function surface(model = sketch()) {
  const calls: unknown[][] = [];
  let view = VIEW;
  const record =
    (name: string, answer?: unknown) =>
    (...args: unknown[]) => {
      calls.push([name, ...args]);
      return answer;
    };
  const listener = {
    handlesOf: () => [],
    onPullBegin: record("begin"),
    onPull: record("pull", "8f"),
    onPullEnd: record("end"),
    onStrokeBegin: record("stroke begins", () => undefined),
    onStroke: record("stroke"),
    onStretch: record("stretch"),
    onHover: record("hover"),
    onChoose: record("choose"),
    onRow: record("row"),
    onFold: record("fold"),
    onMoveRow: (row: number, by: 1 | -1) => {
      calls.push(["move", row, by]);
      return row + by < 2;
    },
    onScrub: record("scrub"),
    onView: record("view"),
  } as unknown as TapeListener;
  const made: TapeSurface = {
    model: () => model,
    view: () => view,
    setView: next => (view = next),
    repaint: () => undefined,
    drop: () => undefined,
    listener,
  };
  return { made, calls, viewNow: () => view };
}

const at = (frame: number, row: number) => ({
  x: LABEL_PX + (frame - VIEW.firstFrame) * VIEW.pxPerFrame,
  y: RULER_PX + row * ROW_PX + ROW_PX / 2,
});
const onName = (row: number, x = 80) => ({ x, y: RULER_PX + row * ROW_PX + 12 });

test("a pull reports every length, never below the minimum, and ends once", () => {
  const { made, calls } = surface();
  const handle = {
    row: 2,
    edge: 35,
    anchor: 29,
    ends: "after" as const,
    isReal: false,
    least: 0,
    path: ["moves", 0, "buffer"],
    rounding: "atMost" as const,
    words: "buffer",
  };
  const pull = beginPull(made, handle, at(35, 2));
  pull.move(at(38, 2));
  pull.move(at(12, 2));
  expect(pull.shown().words).toBe("8f");
  expect(pull.shown().handle.edge).toBe(29);
  pull.end(at(12, 2));
  const lengths = calls.flatMap(([name, , frames]) => (name === "pull" ? [frames] : []));
  expect(lengths).toEqual([6, 9, 0]);
  expect(calls.at(-1)).toEqual(["end", false]);
});

test("a cancelled pull is reported", () => {
  const { made, calls } = surface();
  const window = { anchor: 29, ends: "past" as const, isReal: false, least: 0 };
  const handle = { ...window, row: 2, edge: 35, path: [], rounding: "atMost" as const, words: "" };
  beginPull(made, handle, at(35, 2)).cancel();
  expect(calls.at(-1)).toEqual(["end", true]);
});

test("a brush previews its stretch, and paints it on release", () => {
  const { made, calls } = surface();
  const brush = beginBrush(made, at(40, 1), false)!;
  brush.move(at(44.5, 1));
  expect(brush.shown()).toEqual({ row: 1, from: 40, to: 45 });
  brush.end(at(46.5, 1));
  expect(calls).toEqual([
    ["stroke begins", expect.any(Function)],
    ["stroke", 1, { wipeFrom: 40, wipeTo: 40, fillFrom: 40, fillTo: 47 }],
  ]);
});

test("a cancelled brush paints nothing; recognised rows cannot be painted", () => {
  const { made, calls } = surface();
  beginBrush(made, at(40, 1), false)!.cancel();
  expect(calls.map(([name]) => name)).toEqual(["stroke begins"]);
  expect(beginBrush(made, at(40, 2), false)).toBeUndefined();
  expect(beginBrush(made, at(40, 9), false)).toBeUndefined();
});

test("another edit keeps a stroke as it is; an undo removes it and nothing else", () => {
  const { made, calls } = surface();
  let close: ((why: "travel" | "other") => boolean | void) | undefined;
  const listener = made.listener as { onStrokeBegin: TapeListener["onStrokeBegin"] };
  listener.onStrokeBegin = onClosed => {
    close = onClosed;
    return () => undefined;
  };
  beginBrush(made, at(40, 1), false)!.move(at(44.5, 1));
  expect(close!("other")).toBeUndefined();
  expect(calls).toEqual([["stroke", 1, expect.objectContaining({ fillFrom: 40, fillTo: 45 })]]);
  calls.length = 0;
  beginBrush(made, at(40, 1), false)!.move(at(44.5, 1));
  expect(close!("travel")).toBe(true);
  expect(calls).toEqual([]);
});

test("a selection works in both directions", () => {
  const { made, calls } = surface();
  const sweep = beginSweep(made, at(50, -1));
  sweep.move(at(60.5, -1));
  sweep.move(at(44.5, -1));
  expect(calls).toEqual([
    ["stretch", 50, 60],
    ["stretch", 44, 50],
  ]);
});

test("scrubbing follows the hand, and stays within the take", () => {
  const { made, calls } = surface();
  const scrub = beginScrub(made, at(50, -1));
  scrub.move(at(400, -1));
  expect(calls).toEqual([
    ["scrub", 50],
    ["scrub", 99],
  ]);
});

test("a click selects a mark within reach, or the row at that frame", () => {
  const { made, calls } = surface();
  beginPan(made, at(31, 2), true).end(at(31, 2));
  expect(calls).toEqual([
    ["scrub", 30],
    ["choose", { row: 2, frame: 30, note: 7 }],
  ]);
  calls.length = 0;
  beginPan(made, at(22.5, 0), true).end(at(22.5, 0));
  expect(calls.at(-1)).toEqual(["choose", { row: 0, frame: 22, note: -1 }]);
  calls.length = 0;
  beginPan(made, at(22, 8), true).end(at(22, 8));
  expect(calls.at(-1)).toEqual(["choose", { row: -1, frame: 22, note: -1 }]);
});

test("a pan moves the view and chooses nothing", () => {
  const { made, calls, viewNow } = surface();
  const pan = beginPan(made, at(30, 1), true);
  pan.move(at(20, 1));
  pan.end(at(20, 1));
  expect(viewNow().firstFrame).toBe(20);
  expect(calls).toEqual([]);
});

test("two fingers zoom and move the view: the frames below them stay below them", () => {
  const { made, calls, viewNow } = surface();
  const before = viewNow();
  const frameAt = (place: { readonly x: number }) =>
    viewNow().firstFrame + (place.x - LABEL_PX) / viewNow().pxPerFrame;
  const [one, other] = [at(30, 1), at(50, 1)];
  const frames = [frameAt(one), frameAt(other)];
  const pinch = beginPinch(made, one, other);
  const [oneNow, otherNow] = [
    { ...one, x: one.x - 20 },
    { ...other, x: other.x + 60 },
  ];
  pinch.move(oneNow);
  pinch.moveOther(otherNow);
  pinch.end(oneNow);
  expect(viewNow().pxPerFrame).toBeGreaterThan(before.pxPerFrame);
  expect([frameAt(oneNow), frameAt(otherNow)].map(frame => Math.round(frame * 1000) / 1000)).toEqual(frames);
  expect(calls).toEqual([]);
});

test("a click on a name chooses its row; on the mark before the first of a group it folds", () => {
  const { made, calls } = surface();
  beginRow(made, onName(1)).end(onName(1));
  beginRow(made, onName(0, 12)).end(onName(0, 12));
  beginRow(made, onName(1, 12)).end(onName(1, 12));
  beginRow(made, onName(2, 12)).end(onName(2, 12));
  expect(calls).toEqual([
    ["row", 1],
    ["fold", "controls"],
    ["row", 1],
    ["fold", "moves"],
  ]);
});

test("dragging a name moves its row one place at a time, and is not a click", () => {
  const { made, calls } = surface();
  const drag = beginRow(made, onName(0));
  drag.move(onName(2));
  drag.end(onName(2));
  expect(calls).toEqual([
    ["move", 0, 1],
    ["move", 1, 1],
  ]);
});

test("over the ruler there is no row", () => {
  expect(rowUnder(surface().made, 5)).toBe(-1);
  expect(rowUnder(surface().made, RULER_PX + ROW_PX * 2.5)).toBe(2);
});
