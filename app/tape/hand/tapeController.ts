import type { Playback } from "../../document/playback";
import type { TapeChange } from "../model/changes";
import type { TapeHandle } from "../model/handles";
import { paintTape } from "../paint/paintTape";
import { readPalette, type Palette } from "../../ui/palette";
import type { TapePoint } from "../model/pressOf";
import { isPaintable } from "../model/stroke";
import {
  beginBrush,
  beginPan,
  beginPull,
  beginRow,
  beginScrub,
  beginSweep,
  frameUnder,
  rowUnder,
  type Brush,
  type Pull,
  type TapeGesture,
  type TapePlace,
} from "./tapeGestures";
import type { TapeListener } from "./tapeListener";
import { EMPTY_TAPE, type TapeModel, type TapeRow } from "../model/tapeRows";
import {
  clampView,
  isSameView,
  laneWidth,
  LABEL_PX,
  RULER_PX,
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
  /** While live the newest frame stays visible and nothing can be clicked. */
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

const HANDLE_REACH_PX = 6;
/**
 * The zoom in px per frame from which window ends can be pulled, and the frames beyond the view in which they
 * are found, because a window may end far from its start.
 */
const HANDLES_FROM_PX = 0.5;
const HANDLES_ABOUT = 1200;

/** Attaches to a canvas. Call `destroy` when it is removed. */
export function createTapeController(
  canvas: HTMLCanvasElement,
  playback: Pick<Playback, "getState" | "subscribe">,
  listener: TapeListener,
): TapeController {
  const ctx = canvas.getContext("2d", { alpha: false })!;
  let palette: Palette = readPalette(canvas);
  let model = EMPTY_TAPE;
  let isLive = false;
  let view: TapeView = { firstFrame: 0, pxPerFrame: 8, widthPx: 0, heightPx: 0, scrollPx: 0 };
  let hover = -1;
  let hoverRow = -1;
  let handles: readonly TapeHandle[] = [];
  let keyRow = 0;
  let request = 0;
  let overlay: TapeOverlay = { links: [], changes: [], stretch: undefined, ghosts: [] };
  let tool: "look" | "paint" = "look";
  /** The place last scrolled into view, until the user or the playhead moves the view. */
  let shownPlace: TapeStretchOfRows | undefined;
  let gesture: TapeGesture | undefined;
  /** The pointer of the current gesture, and its last position. */
  let pointerId = -1;
  let lastPlace: TapePlace = { x: 0, y: 0 };
  const surface = { model: () => model, view: () => view, setView, repaint, drop, listener };

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
    const pull = gesture?.kind === "pull" ? (gesture as Pull).shown() : undefined;
    paintTape(ctx, palette, view, model, {
      ...overlay,
      handles: pull ? [pull.handle] : isLive || tool === "paint" ? [] : handles,
      pull,
      stroke: gesture?.kind === "stroke" ? (gesture as Brush).shown() : undefined,
      playhead: playheadAt(),
      hover,
      chosenRow: keyRow,
    });
    canvas.dataset.painted = String(model.frames);
    canvas.dataset.firstFrame = String(view.firstFrame);
    canvas.dataset.scrollPx = String(view.scrollPx);
  }

  function playheadAt(): number {
    if (model.frames === 0) return -1;
    return Math.max(0, isLive ? model.frames - 1 : playback.getState().frame);
  }

  function paintOn(sheet: CanvasRenderingContext2D): void {
    const still = { handles: [], pull: undefined, stroke: undefined, hover: -1, chosenRow: -1 };
    paintTape(sheet, palette, view, model, { ...overlay, ...still, playhead: playheadAt() });
  }

  function repaint(): void {
    request ||= requestAnimationFrame(paint);
  }

  function setView(next: TapeView): void {
    const before = view;
    view = clampView(next, model.frames, model.rows.length);
    if (!isSameView(before, view)) {
      listener.onView(view);
      if (hoverRow >= 0) findHandles();
    }
    repaint();
  }

  function placeOf(event: PointerEvent | WheelEvent): TapePlace {
    const box = canvas.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }

  /** Returns the handle below the pointer. */
  function handleAt(x: number, row: number): TapeHandle | undefined {
    if (isLive || tool === "paint") return undefined;
    return handles.find(
      handle =>
        handle.row === row &&
        Math.abs(LABEL_PX + (handle.edge - view.firstFrame) * view.pxPerFrame - x) <= HANDLE_REACH_PX,
    );
  }

  function hoverOver(row: number): void {
    if (row === hoverRow) return;
    hoverRow = row;
    findHandles();
  }

  /**
   * Finds the handles of the row below the pointer, near the visible range; none when zoomed out too far to
   * distinguish them.
   */
  function findHandles(): void {
    const isThere = hoverRow >= 0 && hoverRow < model.rows.length && view.pxPerFrame >= HANDLES_FROM_PX;
    const shown = view.widthPx / view.pxPerFrame;
    const [from, to] = [view.firstFrame - HANDLES_ABOUT - shown, view.firstFrame + shown + HANDLES_ABOUT];
    handles = isThere ? listener.handlesOf(hoverRow, { from, to }) : [];
  }

  function drop(): void {
    if (gesture?.kind === "pull") hoverRow = -1;
    gesture = undefined;
    repaint();
  }

  function endGesture(isCancelled: boolean, place: TapePlace = lastPlace): void {
    const ended = gesture;
    if (!ended) return;
    drop();
    if (isCancelled) ended.cancel();
    else ended.end(place);
  }

  function beginGesture(event: PointerEvent, place: TapePlace): TapeGesture | undefined {
    const isOverLanes = place.x >= LABEL_PX;
    const row = rowUnder(surface, place.y);
    const handle = handleAt(place.x, row);
    if (handle) {
      hover = -1;
      listener.onHover(-1, 0, 0);
      return beginPull(surface, handle, place);
    }
    if (!isOverLanes && row >= 0 && !isLive) return beginRow(surface, place);
    if (tool === "paint" && isOverLanes && row >= 0 && !isLive)
      return beginBrush(surface, place, event.shiftKey);
    if (place.y < RULER_PX && isOverLanes && !isLive)
      return event.shiftKey ? beginSweep(surface, place) : beginScrub(surface, place);
    return beginPan(surface, place, isOverLanes && !isLive);
  }

  function onPointerDown(event: PointerEvent): void {
    if (gesture || !event.isPrimary) return;
    const place = placeOf(event);
    shownPlace = undefined;
    canvas.setPointerCapture(event.pointerId);
    ({ pointerId } = event);
    lastPlace = place;
    hoverOver(rowUnder(surface, place.y));
    gesture = beginGesture(event, place);
    repaint();
  }

  function cursorAt({ x, y }: TapePlace): string {
    const row = rowUnder(surface, y);
    if (handleAt(x, row)) return "ew-resize";
    const found = model.rows[row];
    if (x < LABEL_PX && found && !isLive) return "pointer";
    return tool === "paint" && found && isPaintable(found) ? "crosshair" : "";
  }

  function onPointerMove(event: PointerEvent): void {
    const place = placeOf(event);
    if (gesture && event.pointerId !== pointerId) return;
    lastPlace = place;
    gesture?.move(place);
    if (gesture && gesture.kind !== "pan") return;
    hoverOver(rowUnder(surface, place.y));
    canvas.style.cursor = cursorAt(place);
    hover = place.x >= LABEL_PX && !isLive && model.frames > 0 ? frameUnder(surface, place.x) : -1;
    listener.onHover(hover, place.x, place.y);
    repaint();
  }

  function onPointerUp(event: PointerEvent): void {
    if (event.pointerId === pointerId) endGesture(false, placeOf(event));
  }

  function onPointerLeave(): void {
    if (!gesture) hoverOver(-1);
    hover = -1;
    listener.onHover(-1, 0, 0);
    repaint();
  }

  /** Ends an interrupted gesture: edits are kept, and no click results. */
  function breakOff(): void {
    endGesture(gesture?.kind !== "pull" && gesture?.kind !== "stroke");
  }

  /** The system took the pointer, or the window lost focus. */
  function onTaken(event: Event): void {
    const isOther = "pointerId" in event && event.pointerId !== pointerId;
    if (!isOther) breakOff();
  }

  function onEscape(event: KeyboardEvent): void {
    if (event.key !== "Escape" || !gesture) return;
    event.stopPropagation();
    endGesture(true);
  }

  function onWheel(event: WheelEvent): void {
    event.preventDefault();
    shownPlace = undefined;
    const { x } = placeOf(event);
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
    const sized = { ...view, widthPx: entry.contentRect.width, heightPx: entry.contentRect.height };
    setView(shownPlace ? revealStretchOfRows(sized, shownPlace) : sized);
    if (request) cancelAnimationFrame(request);
    paint();
  });
  resizing.observe(canvas);
  const stopFollowing = playback.subscribe(({ frame }, before) => {
    if (!isLive && frame !== before.frame) {
      shownPlace = undefined;
      setView(revealFrame(view, frame));
    }
    repaint();
  });
  const ending = new AbortController();
  const { signal } = ending;
  canvas.addEventListener("pointerdown", onPointerDown, { signal });
  canvas.addEventListener("pointermove", onPointerMove, { signal });
  canvas.addEventListener("pointerup", onPointerUp, { signal });
  canvas.addEventListener("pointerleave", onPointerLeave, { signal });
  canvas.addEventListener("pointercancel", onTaken, { signal });
  canvas.addEventListener("lostpointercapture", onTaken, { signal });
  window.addEventListener("blur", onTaken, { signal });
  canvas.addEventListener("wheel", onWheel, { passive: false, signal });
  window.addEventListener("keydown", onEscape, { signal, capture: true });
  window.addEventListener("moss-tap-theme", onTheme, { signal });
  void document.fonts.ready.then(repaint);

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
      canvas.dataset.rows = model.rows.map(row => row.name).join("|");
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
      cancelAnimationFrame(request);
      resizing.disconnect();
      stopFollowing();
      ending.abort();
      breakOff();
    },
  };
}
