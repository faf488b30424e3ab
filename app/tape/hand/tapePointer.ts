import type { TapeHandle } from "../model/handles";
import { isPaintable } from "../model/stroke";
import { LABEL_PX, RULER_PX, zoomView } from "../model/tapeView";
import {
  beginBrush,
  beginPan,
  beginPinch,
  beginPull,
  beginRow,
  beginScrub,
  beginSweep,
  frameUnder,
  rowUnder,
  type Brush,
  type Pinch,
  type Pull,
  type TapeGesture,
  type TapePlace,
  type TapeSurface,
} from "./tapeGestures";

const HANDLE_REACH_PX = 6;
/**
 * The zoom in px per frame from which window ends can be pulled, and the frames beyond the view in which they
 * are found, because a window may end far from its start.
 */
const HANDLES_FROM_PX = 0.5;
const HANDLES_ABOUT = 1200;

/** The tape as its pointer sees it. */
export interface PointedTape extends Omit<TapeSurface, "drop"> {
  readonly isLive: () => boolean;
  readonly tool: () => "look" | "paint";
  /** Called when the user moves the view. */
  readonly onMove: () => void;
}

/** The pointer of a tape: its hover, its gesture, and the handles below it. */
export interface TapePointer {
  /** The frame below the pointer; −1 for none. */
  readonly hover: () => number;
  /** The handles of the row below the pointer. */
  readonly handles: () => readonly TapeHandle[];
  /** The pulled handle with its words, and the stroke being painted. */
  readonly pull: () => ReturnType<Pull["shown"]> | undefined;
  readonly stroke: () => ReturnType<Brush["shown"]> | undefined;
  /** Finds the handles again after the view changed. */
  readonly refreshHandles: () => void;
  /** Forgets the handles of rows that are replaced. */
  readonly forgetHandles: () => void;
  readonly destroy: () => void;
}

/** Attaches to a canvas. A gesture follows one pointer and ends on up, cancel, lost capture, blur and Escape. */
export function createTapePointer(canvas: HTMLCanvasElement, tape: PointedTape): TapePointer {
  const { model, view, setView, repaint, listener, isLive, tool } = tape;
  const surface: TapeSurface = { model, view, setView, repaint, listener, drop };
  let hover = -1;
  let hoverRow = -1;
  let handles: readonly TapeHandle[] = [];
  let gesture: TapeGesture | undefined;
  /** The pointer of the current gesture, and its last position. */
  let pointerId = -1;
  let lastPlace: TapePlace = { x: 0, y: 0 };
  /** The second finger of a pinch. */
  let otherId = -1;

  function placeOf(event: PointerEvent | WheelEvent): TapePlace {
    const box = canvas.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }

  /** Returns the handle below the pointer. */
  function handleAt(x: number, row: number): TapeHandle | undefined {
    if (isLive() || tool() === "paint") return undefined;
    const { firstFrame, pxPerFrame } = view();
    return handles.find(
      handle =>
        handle.row === row &&
        Math.abs(LABEL_PX + (handle.edge - firstFrame) * pxPerFrame - x) <= HANDLE_REACH_PX,
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
    const { firstFrame, pxPerFrame, widthPx } = view();
    const isThere = hoverRow >= 0 && hoverRow < model().rows.length && pxPerFrame >= HANDLES_FROM_PX;
    const shown = widthPx / pxPerFrame;
    const [from, to] = [firstFrame - HANDLES_ABOUT - shown, firstFrame + shown + HANDLES_ABOUT];
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
    if (isLive()) return beginPan(surface, place, false);
    if (!isOverLanes && row >= 0) return beginRow(surface, place);
    if (tool() === "paint" && isOverLanes && row >= 0) return beginBrush(surface, place, event.shiftKey);
    if (place.y < RULER_PX && isOverLanes)
      return event.shiftKey ? beginSweep(surface, place) : beginScrub(surface, place);
    return beginPan(surface, place, isOverLanes);
  }

  function onPointerDown(event: PointerEvent): void {
    if (gesture?.kind === "pan" && event.pointerType === "touch") {
      otherId = event.pointerId;
      canvas.setPointerCapture(otherId);
      gesture = beginPinch(surface, lastPlace, placeOf(event));
    }
    if (gesture || !event.isPrimary) return;
    const place = placeOf(event);
    tape.onMove();
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
    const found = model().rows[row];
    if (x < LABEL_PX && found && !isLive()) return "pointer";
    return tool() === "paint" && found && isPaintable(found) ? "crosshair" : "";
  }

  function onPointerMove(event: PointerEvent): void {
    const place = placeOf(event);
    if (gesture?.kind === "pinch" && event.pointerId === otherId) (gesture as Pinch).moveOther(place);
    if (gesture && event.pointerId !== pointerId) return;
    lastPlace = place;
    gesture?.move(place);
    if (gesture && gesture.kind !== "pan") return;
    hoverOver(rowUnder(surface, place.y));
    canvas.style.cursor = cursorAt(place);
    hover = place.x >= LABEL_PX && !isLive() && model().frames > 0 ? frameUnder(surface, place.x) : -1;
    listener.onHover(hover, place.x, place.y);
    repaint();
  }

  /** A pinch ends with either of its fingers. */
  const isOfGesture = (id: number) => id === pointerId || (gesture?.kind === "pinch" && id === otherId);

  function onPointerUp(event: PointerEvent): void {
    if (isOfGesture(event.pointerId)) endGesture(false, placeOf(event));
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
    if (!("pointerId" in event) || isOfGesture(Number(event.pointerId))) breakOff();
  }

  function onEscape(event: KeyboardEvent): void {
    if (event.key !== "Escape" || !gesture) return;
    event.stopPropagation();
    endGesture(true);
  }

  function onWheel(event: WheelEvent): void {
    event.preventDefault();
    tape.onMove();
    const now = view();
    const { ctrlKey, shiftKey, deltaX, deltaY } = event;
    if (ctrlKey) setView(zoomView(now, Math.exp(-deltaY / 300), placeOf(event).x));
    else if (shiftKey || Math.abs(deltaX) > Math.abs(deltaY))
      setView({ ...now, firstFrame: now.firstFrame + (deltaX || deltaY) / now.pxPerFrame });
    else setView({ ...now, scrollPx: now.scrollPx + deltaY });
  }

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

  return {
    hover: () => hover,
    handles: () => handles,
    pull: () => (gesture?.kind === "pull" ? (gesture as Pull).shown() : undefined),
    stroke: () => (gesture?.kind === "stroke" ? (gesture as Brush).shown() : undefined),
    refreshHandles() {
      if (hoverRow >= 0) findHandles();
    },
    forgetHandles() {
      hoverRow = -1;
      handles = [];
    },
    destroy() {
      ending.abort();
      breakOff();
    },
  };
}
