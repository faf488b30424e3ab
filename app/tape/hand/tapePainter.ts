import { readPalette, type Palette } from "../../ui/palette";
import { paintTape } from "../paint/paintTape";
import type { TapeModel } from "../model/tapeRows";
import type { TapeView } from "../model/tapeView";

type Cursor = Parameters<typeof paintTape>[4];

/** The tape as it is to be painted; `isStill`: without the effects of pointer and keys. */
export interface TapePicture {
  readonly model: () => TapeModel;
  readonly view: () => TapeView;
  readonly cursor: (isStill: boolean) => Cursor;
}

/** Paints a canvas at most once per animation frame. */
export interface TapePainter {
  readonly repaint: () => void;
  /** Returns the number of frames of the tape as last painted; −1 before. */
  readonly painted: () => number;
  readonly paintNow: () => void;
  /** Paints on another canvas of the same size, without the effects of pointer and keys. */
  readonly paintOn: (sheet: CanvasRenderingContext2D) => void;
  readonly destroy: () => void;
}

/** Creates the painter of a canvas. It repaints when the theme changes and when the fonts are loaded. */
export function createTapePainter(canvas: HTMLCanvasElement, picture: TapePicture): TapePainter {
  const ctx = canvas.getContext("2d", { alpha: false })!;
  let palette: Palette = readPalette(canvas);
  let request = 0;
  let painted = -1;

  function paint(): void {
    request = 0;
    const { widthPx, heightPx } = picture.view();
    const ratio = window.devicePixelRatio || 1;
    const width = Math.round(widthPx * ratio);
    const height = Math.round(heightPx * ratio);
    if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintTape(ctx, palette, picture.view(), picture.model(), picture.cursor(false));
    painted = picture.model().frames;
  }

  function repaint(): void {
    request ||= requestAnimationFrame(paint);
  }

  function onTheme(): void {
    palette = readPalette(canvas);
    repaint();
  }

  window.addEventListener("moss-tap-theme", onTheme);
  void document.fonts.ready.then(repaint);
  return {
    repaint,
    painted: () => painted,
    paintNow() {
      cancelAnimationFrame(request);
      paint();
    },
    paintOn: sheet => paintTape(sheet, palette, picture.view(), picture.model(), picture.cursor(true)),
    destroy() {
      cancelAnimationFrame(request);
      window.removeEventListener("moss-tap-theme", onTheme);
    },
  };
}
