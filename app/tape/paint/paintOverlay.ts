import type { TapeChange } from "../model/changes";
import type { TapeHandle } from "../model/handles";
import type { Palette } from "../../ui/palette";
import type { TapePoint } from "../model/pressOf";
import { frameToX, ROW_PX, RULER_PX, type TapeView } from "../model/tapeView";

function middleOf(view: TapeView, row: number): number {
  return RULER_PX + row * ROW_PX - view.scrollPx + ROW_PX / 2;
}

/** Draws the line that joins a press with its fires, requests and their ends. */
export function paintLinks(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  points: readonly TapePoint[],
): void {
  if (points.length < 2) return;
  ctx.strokeStyle = palette.dew;
  ctx.lineWidth = 1.5;
  ctx.setLineDash([3, 3]);
  ctx.beginPath();
  points.forEach((point, i) => {
    const x = frameToX(view, point.frame + 0.5);
    if (i === 0) ctx.moveTo(x, middleOf(view, point.row));
    else ctx.lineTo(x, middleOf(view, point.row));
  });
  ctx.stroke();
  ctx.setLineDash([]);
}

/** Marks the changes of a pull: a halo for new, a dashed ring for removed, an arrow for moved. */
export function paintChanges(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  changes: readonly TapeChange[],
): void {
  ctx.lineWidth = 2;
  ctx.strokeStyle = palette.dew;
  for (const change of changes) {
    const y = middleOf(view, change.row);
    const isX = frameToX(view, change.isFrame + 0.5);
    const wasX = frameToX(view, change.wasFrame + 0.5);
    ctx.setLineDash(change.what === "new" ? [] : [2, 3]);
    ctx.beginPath();
    ctx.arc(change.what === "new" ? isX : wasX, y, 11, 0, Math.PI * 2);
    ctx.stroke();
    ctx.setLineDash([]);
    if (change.what !== "moved") continue;
    ctx.beginPath();
    ctx.moveTo(wasX, y);
    ctx.lineTo(isX, y);
    ctx.stroke();
  }
}

/** Draws the handles of the row below the pointer: a bar with two grooves each. */
export function paintHandles(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  handles: readonly TapeHandle[],
): void {
  for (const handle of handles) {
    const x = frameToX(view, handle.edge);
    const y = middleOf(view, handle.row);
    ctx.fillStyle = palette.ink;
    ctx.beginPath();
    ctx.roundRect(x - 3.5, y - 10, 7, 20, 3);
    ctx.fill();
    ctx.fillStyle = palette.leaf;
    ctx.fillRect(x - 1.5, y - 5, 1, 10);
    ctx.fillRect(x + 0.5, y - 5, 1, 10);
  }
}

/** Draws the words beside the pointer during a pull. */
export function paintPull(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  handle: TapeHandle,
  words: string,
): void {
  ctx.font = '600 13px "Atkinson Hyperlegible Next Variable", sans-serif';
  const width = ctx.measureText(words).width + 18;
  const x = Math.min(view.widthPx - width - 4, frameToX(view, handle.edge) + 10);
  const y =
    middleOf(view, handle.row) - 30 < RULER_PX
      ? middleOf(view, handle.row) + 14
      : middleOf(view, handle.row) - 34;
  ctx.fillStyle = palette.ink;
  ctx.beginPath();
  ctx.roundRect(x, y, width, 22, 6);
  ctx.fill();
  ctx.fillStyle = palette.leaf;
  ctx.textBaseline = "middle";
  ctx.fillText(words, x + 9, y + 11);
}

/** Draws the stretch that is measured or looped. */
export function paintStretch(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  from: number,
  to: number,
): void {
  const x = frameToX(view, from);
  const width = frameToX(view, to + 1) - x;
  ctx.globalAlpha = 0.14;
  ctx.fillStyle = palette.dew;
  ctx.fillRect(x, 0, width, view.heightPx);
  ctx.globalAlpha = 1;
  ctx.fillRect(x, RULER_PX - 3, width, 2);
}

/** Draws the preview of a brush stroke. */
export function paintStroke(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  row: number,
  from: number,
  to: number,
): void {
  const y = middleOf(view, row) - 9;
  ctx.strokeStyle = palette.dew;
  ctx.lineWidth = 2;
  ctx.strokeRect(frameToX(view, from), y, Math.max(2, (to - from) * view.pxPerFrame), 18);
}
