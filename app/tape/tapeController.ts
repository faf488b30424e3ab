import { playhead } from "../store/playhead";
import type { TapeChange } from "./changes";
import type { TapeHandle } from "./handles";
import { paintTape } from "./paintTape";
import { readPalette, type Palette } from "./palette";
import type { TapePoint } from "./pressOf";
import { beginStroke, endStroke, type Stroke, type StrokeResult } from "./stroke";
import type { TapeModel } from "./tapeModel";
import {
  clampView,
  laneWidth,
  LABEL_PX,
  ROW_PX,
  RULER_PX,
  revealFrame,
  xToFrame,
  zoomView,
  type TapeView,
} from "./tapeView";

/** A mark or a stretch that was clicked. */
export interface TapeChoice {
  readonly row: number;
  readonly frame: number;
  /** The note of the nearest mark, −1 when there is none. */
  readonly note: number;
}

/** Owns the tape's canvas: its size, its animation frames and its pointer. Draws only when something has changed. */
export interface TapeController {
  readonly view: () => TapeView;
  readonly setModel: (model: TapeModel) => void;
  /** While live the newest frame stays in sight and nothing is to be clicked. */
  readonly setLive: (isLive: boolean) => void;
  /** The row the keys act on. */
  readonly setRow: (row: number) => void;
  /** What is drawn over the rows: the way of a press, what a pull has changed, a stretch that is measured. */
  readonly setOverlay: (overlay: TapeOverlay) => void;
  readonly setTool: (tool: "look" | "paint") => void;
  readonly zoom: (factor: number) => void;
  readonly reveal: (frame: number) => void;
  readonly showStretch: (firstFrame: number, pxPerFrame: number) => void;
  /** Zooms so that these frames just fit, both ends included. */
  readonly showFrames: (from: number, to: number) => void;
  readonly destroy: () => void;
}

export interface TapeOverlay {
  readonly links: readonly TapePoint[];
  readonly changes: readonly TapeChange[];
  readonly stretch: { readonly from: number; readonly to: number } | undefined;
}

export interface TapeListener {
  /** The ends that can be pulled on a row. */
  readonly handlesOf: (row: number) => readonly TapeHandle[];
  /** A pull: begun, moved to so many frames (the words come back), ended, or broken off. */
  readonly onPullBegin: (handle: TapeHandle) => void;
  readonly onPull: (handle: TapeHandle, frames: number) => string;
  readonly onPullEnd: (isCancelled: boolean) => void;
  /** A stroke of the brush on a control's or a gate's row. */
  readonly onStroke: (row: number, result: StrokeResult) => void;
  /** A stretch swept over the ruler with Shift. */
  readonly onStretch: (from: number, to: number) => void;
  readonly onHover: (frame: number, x: number, y: number) => void;
  readonly onChoose: (choice: TapeChoice) => void;
  readonly onScrub: (frame: number) => void;
  readonly onView: (view: TapeView) => void;
}

const REACH_PX = 10;

/** The mark of a row nearest to a place, within reach. */
function findMark(model: TapeModel, view: TapeView, row: number, x: number): number {
  const found = model.rows[row];
  if (!found) return -1;
  let best = -1;
  let bestPx = REACH_PX;
  found.markFrame.forEach((frame, k) => {
    const off = Math.abs(LABEL_PX + (frame + 0.5 - view.firstFrame) * view.pxPerFrame - x);
    if (off <= bestPx) {
      bestPx = off;
      best = k;
    }
  });
  return best;
}

/** Takes over a canvas. Call destroy when it leaves the page. */
export function createTapeController(
  canvas: HTMLCanvasElement,
  initial: TapeModel,
  listener: TapeListener,
): TapeController {
  const ctx = canvas.getContext("2d", { alpha: false })!;
  let palette: Palette = readPalette(canvas);
  let model = initial;
  let isLive = false;
  let view: TapeView = { firstFrame: 0, pxPerFrame: 8, widthPx: 0, heightPx: 0, scrollPx: 0 };
  let hover = -1;
  let handles: readonly TapeHandle[] = [];
  let keyRow = 0;
  let request = 0;
  let overlay: TapeOverlay = { links: [], changes: [], stretch: undefined };
  let tool: "look" | "paint" = "look";
  let hoverRow = -1;
  let pull: { handle: TapeHandle; words: string } | undefined;
  let stroke: Stroke | undefined;
  let strokeFrame = 0;
  let sweepFrom = -1;
  let isScrubbing = false;
  let panFrom: { x: number; y: number; view: TapeView } | undefined;

  function paint(): void {
    request = 0;
    const ratio = window.devicePixelRatio || 1;
    const width = Math.round(view.widthPx * ratio);
    const height = Math.round(view.heightPx * ratio);
    if (canvas.width !== width || canvas.height !== height) {
      canvas.width = width;
      canvas.height = height;
    }
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    const frame = isLive ? model.frames - 1 : playhead.getState().frame;
    const drawn = stroke && endStroke(stroke, strokeFrame, model.frames);
    const isWipe = drawn && drawn.fillFrom === drawn.fillTo;
    paintTape(ctx, palette, view, model, {
      ...overlay,
      handles: pull ? [pull.handle] : isLive || tool === "paint" ? [] : handles,
      pull,
      stroke: stroke &&
        drawn && {
          row: stroke.row,
          from: isWipe ? drawn.wipeFrom : drawn.fillFrom,
          to: isWipe ? drawn.wipeTo : drawn.fillTo,
        },
      playhead: model.frames === 0 ? -1 : Math.max(0, frame),
      hover,
      chosenRow: keyRow,
    });
    canvas.dataset.painted = String(model.frames);
    canvas.dataset.firstFrame = String(view.firstFrame);
  }

  function repaint(): void {
    request ||= requestAnimationFrame(paint);
  }

  function setView(next: TapeView): void {
    view = clampView(next, model.frames, model.rows.length);
    listener.onView(view);
    repaint();
  }

  function place(event: PointerEvent | WheelEvent): { x: number; y: number } {
    const box = canvas.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }

  /** The handle under the hand on the row it is over. */
  function handleAt(x: number, row: number): TapeHandle | undefined {
    return handles.find(
      handle =>
        handle.row === row && Math.abs(LABEL_PX + (handle.edge - view.firstFrame) * view.pxPerFrame - x) <= 6,
    );
  }

  function rowAt(y: number): number {
    return y < RULER_PX ? -1 : Math.floor((y - RULER_PX + view.scrollPx) / ROW_PX);
  }

  function hoverOver(row: number): void {
    if (row === hoverRow) return;
    hoverRow = row;
    handles = row >= 0 && row < model.rows.length ? listener.handlesOf(row) : [];
  }

  function pullTo(x: number): void {
    if (!pull) return;
    const edge = Math.round(view.firstFrame + (x - LABEL_PX) / view.pxPerFrame);
    const frames = Math.max(pull.handle.least, edge - pull.handle.anchor);
    const handle = { ...pull.handle, edge: pull.handle.anchor + frames };
    pull = { handle, words: listener.onPull(handle, frames) };
    repaint();
  }

  function endPull(isCancelled: boolean): void {
    if (!pull) return;
    pull = undefined;
    hoverRow = -1;
    listener.onPullEnd(isCancelled);
    repaint();
  }

  function onEscape(event: KeyboardEvent): void {
    if (event.key !== "Escape") return;
    stroke = undefined;
    endPull(true);
    repaint();
  }

  function frameAt(x: number): number {
    return Math.max(0, Math.min(model.frames - 1, xToFrame(view, x)));
  }

  function onPointerDown(event: PointerEvent): void {
    const { x, y } = place(event);
    canvas.setPointerCapture(event.pointerId);
    const rowUnder = rowAt(y);
    hoverOver(rowUnder);
    const handle = isLive || tool === "paint" ? undefined : handleAt(x, rowUnder);
    if (handle) {
      hover = -1;
      listener.onHover(-1, 0, 0);
      pull = { handle, words: "" };
      listener.onPullBegin(handle);
      pullTo(x);
    } else if (tool === "paint" && x >= LABEL_PX && rowUnder >= 0 && !isLive) {
      const at = view.firstFrame + (x - LABEL_PX) / view.pxPerFrame;
      stroke = beginStroke(model, rowUnder, at, 6 / view.pxPerFrame, event.shiftKey);
      strokeFrame = frameAt(x);
      repaint();
    } else if (y < RULER_PX && x >= LABEL_PX && !isLive && event.shiftKey) sweepFrom = frameAt(x);
    else if (y < RULER_PX && x >= LABEL_PX && !isLive) {
      isScrubbing = true;
      listener.onScrub(frameAt(x));
    } else panFrom = { x, y, view };
  }

  function onPointerMove(event: PointerEvent): void {
    const { x, y } = place(event);
    if (pull) return pullTo(x);
    if (stroke) {
      strokeFrame = frameAt(x);
      return repaint();
    }
    if (sweepFrom >= 0)
      return listener.onStretch(Math.min(sweepFrom, frameAt(x)), Math.max(sweepFrom, frameAt(x)));
    if (isScrubbing) return listener.onScrub(frameAt(x));
    if (panFrom && event.buttons > 0 && Math.abs(x - panFrom.x) + Math.abs(y - panFrom.y) > 3) {
      const firstFrame = panFrom.view.firstFrame - (x - panFrom.x) / view.pxPerFrame;
      setView({ ...view, firstFrame, scrollPx: panFrom.view.scrollPx - (y - panFrom.y) });
    }
    hoverOver(rowAt(y));
    canvas.style.cursor =
      !isLive && tool === "look" && handleAt(x, hoverRow)
        ? "ew-resize"
        : tool === "paint" && hoverRow >= 0
          ? "crosshair"
          : "";
    hover = x >= LABEL_PX && !isLive && model.frames > 0 ? frameAt(x) : -1;
    listener.onHover(hover, x, y);
    repaint();
  }

  function onPointerUp(event: PointerEvent): void {
    const { x, y } = place(event);
    if (pull) return endPull(false);
    if (stroke) {
      listener.onStroke(stroke.row, endStroke(stroke, frameAt(x), model.frames));
      stroke = undefined;
      return repaint();
    }
    if (sweepFrom >= 0) {
      sweepFrom = -1;
      return;
    }
    const wasPan = panFrom && Math.abs(x - panFrom.x) + Math.abs(y - panFrom.y) > 3;
    if (panFrom && !wasPan && x >= LABEL_PX && !isLive && model.frames > 0) {
      const row = Math.floor((y - RULER_PX + view.scrollPx) / ROW_PX);
      const mark = findMark(model, view, row, x);
      const found = model.rows[row];
      const frame = mark >= 0 && found ? found.markFrame[mark]! : frameAt(x);
      listener.onScrub(frame);
      listener.onChoose({
        row: mark >= 0 ? row : -1,
        frame,
        note: mark >= 0 && found ? found.markNote[mark]! : -1,
      });
    }
    isScrubbing = false;
    panFrom = undefined;
  }

  function onPointerLeave(): void {
    hoverOver(-1);
    hover = -1;
    listener.onHover(-1, 0, 0);
    repaint();
  }

  function onPointerCancel(): void {
    stroke = undefined;
    sweepFrom = -1;
    endPull(true);
  }

  function onWheel(event: WheelEvent): void {
    event.preventDefault();
    const { x } = place(event);
    if (event.ctrlKey) setView(zoomView(view, Math.exp(-event.deltaY / 300), x));
    else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      setView({ ...view, firstFrame: view.firstFrame + (event.deltaX || event.deltaY) / view.pxPerFrame });
    } else setView({ ...view, scrollPx: view.scrollPx + event.deltaY });
  }

  function onTheme(): void {
    palette = readPalette(canvas);
    repaint();
  }

  const resizing = new ResizeObserver(([entry]) => {
    if (!entry) return;
    setView({ ...view, widthPx: entry.contentRect.width, heightPx: entry.contentRect.height });
    if (request) cancelAnimationFrame(request);
    paint();
  });
  resizing.observe(canvas);
  const stopFollowing = playhead.subscribe(({ frame }, before) => {
    if (!isLive && frame !== before.frame) setView(revealFrame(view, frame));
    repaint();
  });
  canvas.addEventListener("pointerdown", onPointerDown);
  canvas.addEventListener("pointermove", onPointerMove);
  canvas.addEventListener("pointerup", onPointerUp);
  canvas.addEventListener("pointerleave", onPointerLeave);
  canvas.addEventListener("pointercancel", onPointerCancel);
  window.addEventListener("keydown", onEscape);
  canvas.addEventListener("wheel", onWheel, { passive: false });
  window.addEventListener("moss-tap-theme", onTheme);
  void document.fonts.ready.then(repaint);

  return {
    view: () => view,
    setOverlay(next) {
      overlay = next;
      repaint();
    },
    setTool(next) {
      tool = next;
      repaint();
    },
    setModel(next) {
      model = next;
      hoverRow = -1;
      handles = [];
      if (isLive) setView({ ...view, firstFrame: Infinity });
      else setView(view);
    },
    setLive(next) {
      isLive = next;
      repaint();
    },
    setRow(next) {
      keyRow = next;
      repaint();
    },
    zoom(factor) {
      const shown = playhead.getState().frame;
      setView(
        revealFrame(
          zoomView(view, factor, LABEL_PX + (shown + 0.5 - view.firstFrame) * view.pxPerFrame),
          shown,
        ),
      );
    },
    reveal: frame => setView(revealFrame(view, frame)),
    showStretch: (firstFrame, pxPerFrame) => setView({ ...view, firstFrame, pxPerFrame }),
    showFrames(from, to) {
      const pxPerFrame = laneWidth(view) / Math.max(1, to - from + 1);
      setView({ ...view, pxPerFrame, firstFrame: from });
    },
    destroy() {
      cancelAnimationFrame(request);
      resizing.disconnect();
      stopFollowing();
      window.removeEventListener("moss-tap-theme", onTheme);
      canvas.removeEventListener("pointerdown", onPointerDown);
      canvas.removeEventListener("pointermove", onPointerMove);
      canvas.removeEventListener("pointerup", onPointerUp);
      canvas.removeEventListener("pointerleave", onPointerLeave);
      canvas.removeEventListener("pointercancel", onPointerCancel);
      window.removeEventListener("keydown", onEscape);
      endPull(true);
      canvas.removeEventListener("wheel", onWheel);
    },
  };
}
