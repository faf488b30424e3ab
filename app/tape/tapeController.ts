import { playhead } from "../store/playhead";
import { paintTape } from "./paintTape";
import { readPalette, type Palette } from "./palette";
import type { TapeModel } from "./tapeModel";
import {
  clampView,
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
  readonly setChoice: (choice: TapeChoice | undefined) => void;
  readonly zoom: (factor: number) => void;
  readonly reveal: (frame: number) => void;
  readonly showStretch: (firstFrame: number, pxPerFrame: number) => void;
  readonly destroy: () => void;
}

export interface TapeListener {
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
  let choice: TapeChoice | undefined;
  let request = 0;
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
    paintTape(ctx, palette, view, model, {
      playhead: Math.max(0, frame),
      hover,
      chosenRow: choice?.row ?? -1,
      chosenFrame: choice?.frame ?? -1,
    });
    canvas.dataset.painted = String(model.frames);
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

  function frameAt(x: number): number {
    return Math.max(0, Math.min(model.frames - 1, xToFrame(view, x)));
  }

  function onPointerDown(event: PointerEvent): void {
    const { x, y } = place(event);
    canvas.setPointerCapture(event.pointerId);
    if (y < RULER_PX && x >= LABEL_PX && !isLive) {
      isScrubbing = true;
      listener.onScrub(frameAt(x));
    } else panFrom = { x, y, view };
  }

  function onPointerMove(event: PointerEvent): void {
    const { x, y } = place(event);
    if (isScrubbing) return listener.onScrub(frameAt(x));
    if (panFrom && event.buttons > 0 && Math.abs(x - panFrom.x) + Math.abs(y - panFrom.y) > 3) {
      const firstFrame = panFrom.view.firstFrame - (x - panFrom.x) / view.pxPerFrame;
      setView({ ...view, firstFrame, scrollPx: panFrom.view.scrollPx - (y - panFrom.y) });
    }
    hover = x >= LABEL_PX && !isLive && model.frames > 0 ? frameAt(x) : -1;
    listener.onHover(hover, x, y);
    repaint();
  }

  function onPointerUp(event: PointerEvent): void {
    const { x, y } = place(event);
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
    hover = -1;
    listener.onHover(-1, 0, 0);
    repaint();
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
  const stopFollowing = playhead.subscribe(({ frame, isPlaying }) => {
    if (isPlaying) setView(revealFrame(view, frame));
    repaint();
  });
  canvas.addEventListener("pointerdown", onPointerDown);
  canvas.addEventListener("pointermove", onPointerMove);
  canvas.addEventListener("pointerup", onPointerUp);
  canvas.addEventListener("pointerleave", onPointerLeave);
  canvas.addEventListener("wheel", onWheel, { passive: false });
  window.addEventListener("moss-tap-theme", onTheme);
  void document.fonts.ready.then(repaint);

  return {
    view: () => view,
    setModel(next) {
      model = next;
      if (isLive) setView({ ...view, firstFrame: Infinity });
      else setView(view);
    },
    setLive(next) {
      isLive = next;
      repaint();
    },
    setChoice(next) {
      choice = next;
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
    destroy() {
      cancelAnimationFrame(request);
      resizing.disconnect();
      stopFollowing();
      window.removeEventListener("moss-tap-theme", onTheme);
      canvas.removeEventListener("pointerdown", onPointerDown);
      canvas.removeEventListener("pointermove", onPointerMove);
      canvas.removeEventListener("pointerup", onPointerUp);
      canvas.removeEventListener("pointerleave", onPointerLeave);
      canvas.removeEventListener("wheel", onWheel);
    },
  };
}
