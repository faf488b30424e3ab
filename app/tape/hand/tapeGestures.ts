import { edgeOfWindow, framesOfWindow, type TapeHandle } from "../model/handles";
import { beginStroke, endStroke, type Stroke } from "../model/stroke";
import type { TapeListener } from "./tapeListener";
import type { TapeModel } from "../model/tapeRows";
import { LABEL_PX, ROW_PX, RULER_PX, xToFrame, zoomView, type TapeView } from "../model/tapeView";

/** A position on the canvas, in px from its corner. */
export interface TapePlace {
  readonly x: number;
  readonly y: number;
}

/** The tape as a gesture uses it. */
export interface TapeSurface {
  readonly model: () => TapeModel;
  readonly view: () => TapeView;
  readonly setView: (view: TapeView) => void;
  readonly repaint: () => void;
  /** Drops the current gesture without ending or cancelling it. */
  readonly drop: () => void;
  readonly listener: TapeListener;
}

/**
 * One gesture, from press to release. Exactly one of `end` and `cancel` is called, once, unless it is
 * dropped.
 */
export interface TapeGesture {
  readonly kind: "pull" | "stroke" | "sweep" | "scrub" | "pan" | "row" | "pinch";
  readonly move: (place: TapePlace) => void;
  readonly end: (place: TapePlace) => void;
  readonly cancel: () => void;
}

const REACH_PX = 10;
const CLICK_PX = 3;
/** The width of the fold marks, left of the names. */
const FOLD_PX = 24;

/** Returns the frame at a position, within the take. */
export function frameUnder({ model, view }: TapeSurface, x: number): number {
  return Math.max(0, Math.min(model().frames - 1, xToFrame(view(), x)));
}

/** Returns the row at a position; −1 over the ruler. May be beyond the last row. */
export function rowUnder({ view }: TapeSurface, y: number): number {
  return y < RULER_PX ? -1 : Math.floor((y - RULER_PX + view().scrollPx) / ROW_PX);
}

/** Returns the mark of a row nearest to a position, within reach. */
function findMark(model: TapeModel, view: TapeView, row: number, x: number): number {
  const found = model.rows[row];
  let best = -1;
  let bestPx = REACH_PX;
  found?.markFrame.forEach((frame, k) => {
    const off = Math.abs(LABEL_PX + (frame + 0.5 - view.firstFrame) * view.pxPerFrame - x);
    if (off <= bestPx) {
      bestPx = off;
      best = k;
    }
  });
  return best;
}

/** Pulls the end of a window; `words` is shown beside the pointer. */
export interface Pull extends TapeGesture {
  readonly shown: () => { readonly handle: TapeHandle; readonly words: string };
}

export function beginPull(surface: TapeSurface, handle: TapeHandle, place: TapePlace): Pull {
  const { listener } = surface;
  let shown = { handle, words: "" };
  const move = ({ x }: TapePlace) => {
    const view = surface.view();
    const edge = Math.round(view.firstFrame + (x - LABEL_PX) / view.pxPerFrame);
    const { clock } = surface.model();
    const frames = Math.max(handle.least, framesOfWindow(handle, clock, edge));
    const moved = { ...handle, edge: edgeOfWindow(handle, clock, frames) };
    shown = { handle: moved, words: listener.onPull(moved, frames) };
    surface.repaint();
  };
  listener.onPullBegin(handle, surface.drop);
  move(place);
  return {
    kind: "pull",
    shown: () => shown,
    move,
    end: () => listener.onPullEnd(false),
    cancel: () => listener.onPullEnd(true),
  };
}

/** Paints on a lane; `result` is the stretch it would leave. */
export interface Brush extends TapeGesture {
  readonly shown: () => { readonly row: number; readonly from: number; readonly to: number };
}

export function beginBrush(surface: TapeSurface, place: TapePlace, isWipe: boolean): Brush | undefined {
  const view = surface.view();
  const at = view.firstFrame + (place.x - LABEL_PX) / view.pxPerFrame;
  const stroke: Stroke | undefined = beginStroke(
    surface.model(),
    rowUnder(surface, place.y),
    at,
    6 / view.pxPerFrame,
    isWipe,
  );
  if (!stroke) return undefined;
  let frame = frameUnder(surface, place.x);
  const result = () => endStroke(stroke, frame, surface.model().frames);
  const endStep = surface.listener.onStrokeBegin(why => {
    surface.drop();
    if (why === "travel") return true;
    surface.listener.onStroke(stroke.row, result());
  });
  return {
    kind: "stroke",
    shown() {
      const { wipeFrom, wipeTo, fillFrom, fillTo } = result();
      return fillFrom === fillTo
        ? { row: stroke.row, from: wipeFrom, to: wipeTo }
        : { row: stroke.row, from: fillFrom, to: fillTo };
    },
    move({ x }) {
      frame = frameUnder(surface, x);
      surface.repaint();
    },
    end({ x }) {
      frame = frameUnder(surface, x);
      endStep();
      surface.listener.onStroke(stroke.row, result());
    },
    cancel: endStep,
  };
}

/** Selects a stretch on the ruler. */
export function beginSweep(surface: TapeSurface, place: TapePlace): TapeGesture {
  const from = frameUnder(surface, place.x);
  return {
    kind: "sweep",
    move({ x }) {
      const frame = frameUnder(surface, x);
      surface.listener.onStretch(Math.min(from, frame), Math.max(from, frame));
    },
    end: () => undefined,
    cancel: () => undefined,
  };
}

/** Drags the playhead along the ruler. */
export function beginScrub(surface: TapeSurface, place: TapePlace): TapeGesture {
  const move = ({ x }: TapePlace) => surface.listener.onScrub(frameUnder(surface, x));
  move(place);
  return { kind: "scrub", move, end: () => undefined, cancel: () => undefined };
}

/** A gesture of two fingers. */
export interface Pinch extends TapeGesture {
  readonly kind: "pinch";
  /** Moves the second finger; `move` moves the first. */
  readonly moveOther: (place: TapePlace) => void;
}

/** The distance in px that two fingers have at least, so that the zoom stays finite. */
const LEAST_PINCH_PX = 8;

/** Zooms and pans by two fingers: the frames below them stay below them. */
export function beginPinch(surface: TapeSurface, one: TapePlace, other: TapePlace): Pinch {
  const before = surface.view();
  const apart = (a: TapePlace, b: TapePlace) => Math.max(LEAST_PINCH_PX, Math.abs(a.x - b.x));
  const middle = (a: TapePlace, b: TapePlace) => (a.x + b.x) / 2;
  const [apartFirst, middleFirst] = [apart(one, other), middle(one, other)];
  let [first, second] = [one, other];
  const show = () => {
    const view = zoomView(before, apart(first, second) / apartFirst, middleFirst);
    const byPx = middle(first, second) - middleFirst;
    surface.setView({ ...view, firstFrame: view.firstFrame - byPx / view.pxPerFrame });
  };
  return {
    kind: "pinch",
    move(place) {
      first = place;
      show();
    },
    moveOther(place) {
      second = place;
      show();
    },
    end: () => undefined,
    cancel: () => undefined,
  };
}

/** Pans; a press released where it began is a click. */
export function beginPan(surface: TapeSurface, place: TapePlace, canChoose: boolean): TapeGesture {
  const before = surface.view();
  const isMoved = ({ x, y }: TapePlace) => Math.abs(x - place.x) + Math.abs(y - place.y) > CLICK_PX;
  return {
    kind: "pan",
    move(now) {
      if (!isMoved(now)) return;
      const view = surface.view();
      const firstFrame = before.firstFrame - (now.x - place.x) / view.pxPerFrame;
      surface.setView({ ...view, firstFrame, scrollPx: before.scrollPx - (now.y - place.y) });
    },
    end(now) {
      const model = surface.model();
      if (isMoved(now) || !canChoose || model.frames === 0) return;
      const row = rowUnder(surface, now.y);
      const mark = findMark(model, surface.view(), row, now.x);
      const found = model.rows[row];
      const frame = mark >= 0 && found ? found.markFrame[mark]! : frameUnder(surface, now.x);
      surface.listener.onScrub(frame);
      surface.listener.onChoose({
        row: found ? row : -1,
        frame,
        note: mark >= 0 && found ? found.markNote[mark]! : -1,
      });
    },
    cancel: () => undefined,
  };
}

/**
 * On a row's name: a click selects the row, one on the mark before it folds its group, a drag moves the row.
 */
export function beginRow(surface: TapeSurface, place: TapePlace): TapeGesture {
  let row = rowUnder(surface, place.y);
  const begun = row;
  return {
    kind: "row",
    move({ y }) {
      const over = rowUnder(surface, y);
      while (over !== row && surface.model().rows[row]) {
        const by = over > row ? 1 : -1;
        if (!surface.listener.onMoveRow(row, by)) return;
        row += by;
      }
    },
    end({ x }) {
      if (row !== begun || !surface.model().rows[row]) return;
      const isFirst = surface.model().rows[row - 1]?.group !== surface.model().rows[row]!.group;
      if (x < FOLD_PX && isFirst) surface.listener.onFold(surface.model().rows[row]!.group);
      else surface.listener.onRow(row);
    },
    cancel: () => undefined,
  };
}
