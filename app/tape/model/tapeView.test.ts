import { expect, test } from "vitest";
import {
  clampView,
  frameToX,
  LABEL_PX,
  NEAREST_PX,
  revealFrame,
  revealRows,
  revealStretch,
  ROW_PX,
  RULER_PX,
  rulerStep,
  xToFrame,
  zoomView,
  type TapeView,
} from "./tapeView";

const VIEW: TapeView = { firstFrame: 100, pxPerFrame: 8, widthPx: 1280, heightPx: 300, scrollPx: 0 };

test("a frame's place leads back to the frame, on its first and its last pixel", () => {
  for (const frame of [100, 101, 180]) {
    expect(xToFrame(VIEW, frameToX(VIEW, frame))).toBe(frame);
    expect(xToFrame(VIEW, frameToX(VIEW, frame + 1) - 0.01)).toBe(frame);
  }
  expect(xToFrame(VIEW, 3)).toBe(100);
});

test("zooming keeps the frame under the pointer where it is", () => {
  const x = LABEL_PX + 333;
  const before = VIEW.firstFrame + 333 / VIEW.pxPerFrame;
  const near = zoomView(VIEW, 2.5, x);
  expect(near.firstFrame + 333 / near.pxPerFrame).toBeCloseTo(before, 9);
  expect(zoomView(VIEW, 1000, x).pxPerFrame).toBe(NEAREST_PX);
});

test("a view stays within its take and not farther than the whole", () => {
  expect(clampView({ ...VIEW, firstFrame: -50 }, 600, 5).firstFrame).toBe(0);
  expect(clampView({ ...VIEW, firstFrame: 9999 }, 600, 5).firstFrame).toBeCloseTo(600 - 1084 / 8, 6);
  expect(clampView({ ...VIEW, pxPerFrame: 0.0001 }, 216_000, 5).pxPerFrame).toBeCloseTo(1084 / 216_000, 9);
  expect(clampView({ ...VIEW, scrollPx: 999 }, 600, 5).scrollPx).toBe(0);
});

test("a frame out of sight is brought in, one in sight moves nothing", () => {
  expect(revealFrame(VIEW, 120)).toBe(VIEW);
  expect(revealFrame(VIEW, 99).firstFrame).toBe(93);
  expect(revealFrame(VIEW, 10).firstFrame).toBeCloseTo(10 - (1084 / 8) * 0.4, 6);
  expect(revealFrame(VIEW, 500).firstFrame).toBeCloseTo(500 - (1084 / 8) * 0.4, 6);
});

test("ruler marks are round numbers that do not touch", () => {
  for (const px of [40, 8, 3, 0.5, 0.02]) expect(rulerStep(px) * px).toBeGreaterThanOrEqual(64);
  expect(rulerStep(8)).toBe(10);
});

test("rows are scrolled into sight as little as is needed; the last ones where not all fit", () => {
  const view = { firstFrame: 0, pxPerFrame: 8, widthPx: 900, heightPx: RULER_PX + 5 * ROW_PX, scrollPx: 0 };
  expect(revealRows(view, 1, 4).scrollPx).toBe(0);
  expect(revealRows(view, 1, 5).scrollPx).toBe(ROW_PX);
  expect(revealRows({ ...view, scrollPx: 6 * ROW_PX }, 2, 5).scrollPx).toBe(2 * ROW_PX);
  expect(revealRows(view, 0, 11).scrollPx).toBe(7 * ROW_PX);
});

test("a visible stretch stays; another one is centred, or left-aligned if it is too long", () => {
  const shown = (VIEW.widthPx - LABEL_PX) / VIEW.pxPerFrame;
  expect(revealStretch(VIEW, 100, 99 + shown)).toBe(VIEW);
  const moved = revealStretch(VIEW, 400, 419);
  expect(400 - moved.firstFrame).toBeCloseTo(moved.firstFrame + shown - 420);
  expect(revealStretch(VIEW, 50, 600).firstFrame).toBe(50);
});
