/** The viewport of a take and its zoom. Frames may be fractional while panning. */
export interface TapeView {
  readonly firstFrame: number;
  readonly pxPerFrame: number;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly scrollPx: number;
}

/** The view before a take is opened and the canvas measured. */
export const NO_VIEW: TapeView = { firstFrame: 0, pxPerFrame: 8, widthPx: 0, heightPx: 0, scrollPx: 0 };

/** A range of frames on some rows, both ends included. */
export interface TapeStretchOfRows {
  readonly from: number;
  readonly to: number;
  readonly firstRow: number;
  readonly lastRow: number;
}

export const LABEL_PX = 196;
export const RULER_PX = 36;
export const ROW_PX = 24;
export const NEAREST_PX = 40;

/** Returns whether two viewports are equal. */
export function isSameView(a: TapeView, b: TapeView): boolean {
  return (
    a.firstFrame === b.firstFrame &&
    a.pxPerFrame === b.pxPerFrame &&
    a.widthPx === b.widthPx &&
    a.heightPx === b.heightPx &&
    a.scrollPx === b.scrollPx
  );
}

/** Returns the width in which frames are drawn, right of the names. */
export function laneWidth(view: TapeView): number {
  return Math.max(1, view.widthPx - LABEL_PX);
}

/** Returns the left edge of a frame, in px from the left of the tape. */
export function frameToX(view: TapeView, frame: number): number {
  return LABEL_PX + (frame - view.firstFrame) * view.pxPerFrame;
}

/** Returns the frame at a position; left of the lanes it is the first one shown. */
export function xToFrame(view: TapeView, x: number): number {
  return Math.floor(view.firstFrame + (Math.max(LABEL_PX, x) - LABEL_PX) / view.pxPerFrame);
}

/** Returns the zoom at which a whole take fits. */
export function fittingScale(view: TapeView, frames: number): number {
  return laneWidth(view) / Math.max(1, frames);
}

/** Clamps a viewport to its take: zoom within its limits, never past the ends. */
export function clampView(view: TapeView, frames: number, rows: number): TapeView {
  const farthest = Math.min(8, fittingScale(view, frames));
  const pxPerFrame = Math.min(NEAREST_PX, Math.max(farthest, view.pxPerFrame));
  const lastFirst = Math.max(0, frames - laneWidth(view) / pxPerFrame);
  const lastScroll = Math.max(0, rows * ROW_PX + RULER_PX - view.heightPx);
  return {
    ...view,
    pxPerFrame,
    firstFrame: Math.min(lastFirst, Math.max(0, view.firstFrame)),
    scrollPx: Math.min(lastScroll, Math.max(0, view.scrollPx)),
  };
}

/** Zooms by a factor around a position, which keeps its frame. */
export function zoomView(view: TapeView, factor: number, aboutX: number): TapeView {
  const x = Math.max(LABEL_PX, aboutX) - LABEL_PX;
  const frame = view.firstFrame + x / view.pxPerFrame;
  const pxPerFrame = Math.min(NEAREST_PX, view.pxPerFrame * factor);
  return { ...view, pxPerFrame, firstFrame: frame - x / pxPerFrame };
}

/**
 * Moves the viewport so that a frame is visible: slightly if it is just outside, otherwise so that it is left
 * of the middle.
 */
export function revealFrame(view: TapeView, frame: number): TapeView {
  const shown = laneWidth(view) / view.pxPerFrame;
  const room = Math.min(6, shown / 4);
  const isBefore = frame < view.firstFrame + 1;
  const isAfter = frame > view.firstFrame + shown - 2;
  if (!isBefore && !isAfter) return view;
  const isFar = isBefore ? frame < view.firstFrame - room : frame > view.firstFrame + shown + room;
  if (isFar) return { ...view, firstFrame: frame - shown * 0.4 };
  return { ...view, firstFrame: isBefore ? frame - room : frame - shown + room };
}

/** Moves the viewport so that a range of frames is visible, centred if it is not fully visible yet. */
export function revealStretch(view: TapeView, from: number, to: number): TapeView {
  const shown = laneWidth(view) / view.pxPerFrame;
  if (from >= view.firstFrame && to + 1 <= view.firstFrame + shown) return view;
  const spare = shown - (to + 1 - from);
  return { ...view, firstFrame: from - Math.max(0, spare / 2) };
}

/** Scrolls so that a range of rows is visible; the last ones if not all fit. */
export function revealRows(view: TapeView, first: number, last: number): TapeView {
  const roomPx = view.heightPx - RULER_PX;
  const fromFirst = Math.min(view.scrollPx, first * ROW_PX);
  return { ...view, scrollPx: Math.max(fromFirst, (last + 1) * ROW_PX - roomPx) };
}

/** Scrolls a range of frames and rows into view. */
export function revealStretchOfRows(view: TapeView, place: TapeStretchOfRows): TapeView {
  return revealRows(revealStretch(view, place.from, place.to), place.firstRow, place.lastRow);
}

/** Returns the distance of ruler marks in frames: a round number whose labels do not overlap. */
export function rulerStep(pxPerFrame: number): number {
  const wanted = 64 / pxPerFrame;
  for (const step of [1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 1200, 1800, 3600, 7200, 18000, 36000])
    if (step >= wanted) return step;
  return 72000;
}
