import type { Playback } from "../../document/playback";
import { describeCanvas } from "../../ui/describeCanvas";
import type { TapeChange } from "../model/changes";
import type { TapePoint } from "../model/pressOf";
import { createTapePainter } from "./tapePainter";
import { createTapePointer } from "./tapePointer";
import type { TapeListener } from "./tapeListener";
import { EMPTY_TAPE, type TapeModel, type TapeRow } from "../model/tapeRows";
import {
  clampView,
  isSameView,
  laneWidth,
  LABEL_PX,
  NO_VIEW,
  revealFrame,
  revealRows,
  revealStretchOfRows,
  zoomView,
  type TapeStretchOfRows,
  type TapeView,
} from "../model/tapeView";

/**
 * Owns the tape's canvas: its size, its animation frames and its pointer. Draws only when something has
 * changed.
 */
export interface TapeController {
  readonly view: () => TapeView;
  readonly setModel: (model: TapeModel) => void;
  /** While live the newest frame stays visible and nothing can be clicked. Scrolls back to the first rows what was revealed. */
  readonly setLive: (isLive: boolean) => void;
  /** Sets the row the keys act on. */
  readonly setRow: (row: number) => void;
  /** Sets the overlay: the path of a press, the changes of a pull, a measured stretch. */
  readonly setOverlay: (overlay: TapeOverlay) => void;
  readonly setTool: (tool: "look" | "paint") => void;
  /** Paints the visible tape on another canvas of the same size, without hover effects. */
  readonly paintOn: (sheet: CanvasRenderingContext2D) => void;
  readonly zoom: (factor: number) => void;
  readonly reveal: (frame: number) => void;
  readonly revealRow: (row: number) => void;
  /** Scrolls a range of frames and rows into view; they stay visible when the size changes. */
  readonly revealPlace: (place: TapeStretchOfRows) => void;
  readonly showStretch: (firstFrame: number, pxPerFrame: number) => void;
  /** Zooms to these frames, both ends included. */
  readonly showFrames: (from: number, to: number) => void;
  readonly destroy: () => void;
}

export interface TapeOverlay {
  readonly links: readonly TapePoint[];
  readonly changes: readonly TapeChange[];
  readonly stretch: { readonly from: number; readonly to: number } | undefined;
  readonly ghosts: readonly (TapeRow | undefined)[];
}

const NO_OVERLAY: TapeOverlay = { links: [], changes: [], stretch: undefined, ghosts: [] };

/** Attaches to a canvas. Call `destroy` when it is removed. */
export function createTapeController(
  canvas: HTMLCanvasElement,
  playback: Pick<Playback, "getState" | "subscribe">,
  listener: TapeListener,
): TapeController {
  let model = EMPTY_TAPE;
  let isLive = false;
  // Measured at once, so that a frame that is revealed before the first report of the size has its place.
  let view: TapeView = { ...NO_VIEW, widthPx: canvas.clientWidth, heightPx: canvas.clientHeight };
  let keyRow = 0;
  let overlay = NO_OVERLAY;
  let tool: "look" | "paint" = "look";
  /** The place last scrolled into view, until the user or the playhead moves the view. */
  let shownPlace: TapeStretchOfRows | undefined;

  function cursor(isStill: boolean) {
    const pull = isStill ? undefined : pointer.pull();
    const hidesHandles = isStill || isLive || tool === "paint";
    return {
      ...overlay,
      handles: pull ? [pull.handle] : hidesHandles ? [] : pointer.handles(),
      pull,
      stroke: isStill ? undefined : pointer.stroke(),
      playhead: playheadAt(),
      hover: isStill ? -1 : pointer.hover(),
      chosenRow: isStill ? -1 : keyRow,
    };
  }

  function playheadAt(): number {
    if (model.frames === 0) return -1;
    return Math.max(0, isLive ? model.frames - 1 : playback.getState().frame);
  }

  function setView(next: TapeView): void {
    const before = view;
    view = clampView(next, model.frames, model.rows.length);
    if (!isSameView(before, view)) {
      listener.onView(view);
      pointer.refreshHandles();
    }
    repaint();
  }

  const painter = createTapePainter(canvas, { model: () => model, view: () => view, cursor });
  const { repaint, paintOn } = painter;
  const pointer = createTapePointer(canvas, {
    model: () => model,
    view: () => view,
    setView,
    repaint,
    listener,
    isLive: () => isLive,
    tool: () => tool,
    onMove: () => void (shownPlace = undefined),
  });
  const resizing = new ResizeObserver(([entry]) => {
    if (!entry) return;
    const sized = { ...view, widthPx: entry.contentRect.width, heightPx: entry.contentRect.height };
    setView(shownPlace ? revealStretchOfRows(sized, shownPlace) : sized);
    painter.paintNow();
  });
  resizing.observe(canvas);
  const stopFollowing = playback.subscribe(({ frame }, before) => {
    if (!isLive && frame !== before.frame) {
      shownPlace = undefined;
      setView(revealFrame(view, frame));
    }
    repaint();
  });
  describeCanvas(canvas, () => ({
    painted: painter.painted(),
    rows: model.rows.map(({ name }) => name),
    firstFrame: view.firstFrame,
    pxPerFrame: view.pxPerFrame,
    scrollPx: view.scrollPx,
  }));

  return {
    view: () => view,
    paintOn,
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
      pointer.forgetHandles();
      setView(isLive ? { ...view, firstFrame: Infinity } : view);
    },
    setLive(next) {
      isLive = next;
      if (isLive && shownPlace) {
        // A press shown before may have scrolled the controls, which one plays by, out of sight.
        shownPlace = undefined;
        setView({ ...view, scrollPx: 0 });
      }
      repaint();
    },
    setRow(next) {
      keyRow = next;
      repaint();
    },
    zoom(factor) {
      const shown = playback.getState().frame;
      const about = LABEL_PX + (shown + 0.5 - view.firstFrame) * view.pxPerFrame;
      setView(revealFrame(zoomView(view, factor, about), shown));
    },
    reveal: frame => setView(revealFrame(view, frame)),
    revealRow: row => setView(revealRows(view, row, row)),
    revealPlace(place) {
      shownPlace = place;
      setView(revealStretchOfRows(view, place));
    },
    showStretch: (firstFrame, pxPerFrame) => setView({ ...view, firstFrame, pxPerFrame }),
    showFrames(from, to) {
      const pxPerFrame = laneWidth(view) / Math.max(1, to - from + 1);
      setView({ ...view, pxPerFrame, firstFrame: from });
    },
    destroy() {
      painter.destroy();
      resizing.disconnect();
      stopFollowing();
      pointer.destroy();
    },
  };
}
