import { paintHatch } from "../../ui/paintHatch";
import type { TapeChange } from "../model/changes";
import type { TapeHandle } from "../model/handles";
import { paintChanges, paintHandles, paintLinks, paintPull, paintStretch, paintStroke } from "./paintOverlay";
import { fitText } from "../../ui/fitText";
import type { Palette } from "../../ui/palette";
import type { TapePoint } from "../model/pressOf";
import { paintGhostRow, paintRow } from "./paintRow";
import type { TapeModel, TapeRow } from "../model/tapeRows";
import { frameToX, LABEL_PX, ROW_PX, RULER_PX, rulerStep, xToFrame, type TapeView } from "../model/tapeView";

/** The content drawn over the rows. */
export interface TapeCursor {
  readonly playhead: number;
  readonly hover: number;
  /** The row the keys act on. */
  readonly chosenRow: number;
  readonly links: readonly TapePoint[];
  readonly changes: readonly TapeChange[];
  readonly handles: readonly TapeHandle[];
  readonly pull: { readonly handle: TapeHandle; readonly words: string } | undefined;
  readonly stroke: { readonly row: number; readonly from: number; readonly to: number } | undefined;
  readonly stretch: { readonly from: number; readonly to: number } | undefined;
  /** The rows of another trace for comparison, in the order of the model's rows. */
  readonly ghosts: readonly (TapeRow | undefined)[];
}

const NUMBER_FONT = '12px "Atkinson Hyperlegible Mono Variable", monospace';
const SMALL_FONT = '11px "Atkinson Hyperlegible Mono Variable", monospace';
const NAME_FONT = '14px "Atkinson Hyperlegible Next Variable", sans-serif';
const STRONG_FONT = '600 14px "Atkinson Hyperlegible Next Variable", sans-serif';

function paintGrid(ctx: CanvasRenderingContext2D, palette: Palette, view: TapeView, frames: number): void {
  const step = rulerStep(view.pxPerFrame);
  const last = Math.min(frames, xToFrame(view, view.widthPx));
  ctx.font = NUMBER_FONT;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  if (view.pxPerFrame >= 6) {
    ctx.globalAlpha = Math.min(1, (view.pxPerFrame - 4) / 16);
    ctx.fillStyle = palette.sand;
    for (let f = Math.ceil(view.firstFrame); f <= last; f++)
      ctx.fillRect(frameToX(view, f), RULER_PX, 1, view.heightPx);
  }
  ctx.globalAlpha = 1;
  ctx.fillStyle = palette.line;
  for (let f = Math.ceil(view.firstFrame / step) * step; f <= last; f += step)
    ctx.fillRect(frameToX(view, f), RULER_PX - 6, 1, view.heightPx);
}

/** Formats milliseconds up to ten seconds, and seconds beyond, so that they fit below a frame number. */
function formatRulerMs(frame: number, rateHz: number): string {
  const ms = (frame * 1000) / rateHz;
  return ms < 10_000 ? `${Math.round(ms)}` : `${Math.round(ms / 100) / 10} s`;
}

function paintRuler(ctx: CanvasRenderingContext2D, palette: Palette, view: TapeView, model: TapeModel): void {
  ctx.fillStyle = palette.leaf;
  ctx.fillRect(0, 0, view.widthPx, RULER_PX);
  const step = rulerStep(view.pxPerFrame);
  const last = Math.min(model.frames, xToFrame(view, view.widthPx));
  for (let f = Math.ceil(view.firstFrame / step) * step; f <= last; f += step) {
    const x = frameToX(view, f) + 4;
    ctx.fillStyle = palette.ink;
    ctx.font = NUMBER_FONT;
    ctx.fillText(String(f), x, 11);
    ctx.fillStyle = palette.soft;
    ctx.font = SMALL_FONT;
    ctx.fillText(formatRulerMs(f, model.rateHz), x, 26);
  }
  ctx.fillStyle = palette.line;
  ctx.fillRect(0, RULER_PX - 1, view.widthPx, 1);
}

/** Draws a line across all rows where a mode begins, and its name; every second mode has a band. */
function paintModes(ctx: CanvasRenderingContext2D, palette: Palette, view: TapeView, model: TapeModel): void {
  ctx.font = SMALL_FONT;
  ctx.textBaseline = "middle";
  model.modeFrame.forEach((frame, k) => {
    const x = frameToX(view, frame);
    const endX = frameToX(view, model.modeFrame[k + 1] ?? model.frames);
    if (endX < LABEL_PX || x > view.widthPx) return;
    if (k % 2 === 1) {
      ctx.globalAlpha = 0.35;
      ctx.fillStyle = palette.sand;
      ctx.fillRect(x, RULER_PX, endX - x, view.heightPx);
      ctx.globalAlpha = 1;
    }
    ctx.fillStyle = palette.bark;
    ctx.fillRect(x, RULER_PX, 1.5, view.heightPx);
    ctx.fillText(model.modeName[k]!, Math.max(x, LABEL_PX) + 5, view.heightPx - 8);
  });
}

/**
 * Draws slanted lines over all rows where the game was stopped, by the take or for a hit, with a label if
 * there is room.
 */
function paintFreezes(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  model: TapeModel,
): void {
  // Between two rows, where bars cover the least of it.
  const labelY = RULER_PX + 2 * ROW_PX - (view.scrollPx % ROW_PX);
  model.freezeFrom.forEach((from, k) => {
    const x = frameToX(view, from);
    const width = frameToX(view, Math.min(model.freezeTo[k]!, model.frames)) - x;
    if (x + width < LABEL_PX || x > view.widthPx) return;
    paintHatch(ctx, x, RULER_PX, width, view.heightPx - RULER_PX, palette.sand);
    ctx.font = SMALL_FONT;
    const wordPx = ctx.measureText("stop").width;
    if (wordPx > width - 8) return;
    // On a ground of its own, or the line between the rows would strike it through.
    ctx.fillStyle = palette.leaf;
    ctx.fillRect(x + 2, labelY - 6, wordPx + 4, 12);
    ctx.fillStyle = palette.soft;
    ctx.textBaseline = "middle";
    ctx.fillText("stop", x + 4, labelY);
  });
}

/** The width of the mark of a gap. */
const GAP_PX = 12;

/** Draws a hatched mark over all rows where time passed unrecorded, with its length. */
function paintGaps(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  { gapFrame, gapMs }: TapeModel,
): void {
  gapFrame.forEach((frame, k) => {
    const x = frameToX(view, frame);
    if (x + GAP_PX < LABEL_PX || x - GAP_PX > view.widthPx) return;
    paintHatch(ctx, x - GAP_PX / 2, RULER_PX, GAP_PX, view.heightPx - RULER_PX, palette.foxglove);
    ctx.font = SMALL_FONT;
    ctx.fillStyle = palette.foxglove;
    ctx.textBaseline = "middle";
    ctx.fillText(`${(gapMs[k]! / 1000).toFixed(1)} s not recorded`, x + GAP_PX, RULER_PX + 8);
  });
}

const OTHERWISE = "from here the bodies go another way than was seen";

/** Draws a dashed line over all rows where the bodies begin to be elsewhere than they were seen. */
function paintOtherwise(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  { otherwiseFrom }: TapeModel,
): void {
  if (otherwiseFrom === undefined) return;
  const x = frameToX(view, otherwiseFrom);
  if (x < LABEL_PX || x > view.widthPx) return;
  ctx.strokeStyle = palette.foxglove;
  ctx.setLineDash([5, 4]);
  ctx.beginPath();
  ctx.moveTo(x, RULER_PX);
  ctx.lineTo(x, view.heightPx);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = SMALL_FONT;
  ctx.textBaseline = "middle";
  // Its place is above whatever row is there.
  ctx.fillStyle = palette.leaf;
  ctx.fillRect(x + 1, RULER_PX + 1, ctx.measureText(OTHERWISE).width + 8, 15);
  ctx.fillStyle = palette.foxglove;
  ctx.fillText(OTHERWISE, x + 5, RULER_PX + 8);
}

/** Draws the frame number of every cell when zoomed in far enough. */
function paintCellNumbers(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  frames: number,
): void {
  if (view.pxPerFrame < 26) return;
  ctx.font = SMALL_FONT;
  ctx.fillStyle = palette.soft;
  ctx.textAlign = "center";
  const last = Math.min(frames - 1, xToFrame(view, view.widthPx));
  for (let f = Math.floor(view.firstFrame); f <= last; f++)
    ctx.fillText(String(f), frameToX(view, f + 0.5), view.heightPx - 8);
  ctx.textAlign = "left";
}

function paintUnits(ctx: CanvasRenderingContext2D, palette: Palette): void {
  ctx.fillStyle = palette.paper;
  ctx.fillRect(0, 0, LABEL_PX - 8, RULER_PX);
  ctx.fillStyle = palette.soft;
  ctx.font = SMALL_FONT;
  ctx.textAlign = "right";
  ctx.fillText("frame", LABEL_PX - 16, 11);
  ctx.fillText("ms", LABEL_PX - 16, 26);
  ctx.textAlign = "left";
}

/** Draws a small triangle before the first row of a group: down if it is open, right if it is folded. */
function paintFoldMark(ctx: CanvasRenderingContext2D, palette: Palette, y: number, isFolded: boolean): void {
  ctx.fillStyle = palette.soft;
  ctx.beginPath();
  if (isFolded) {
    ctx.moveTo(11, y - 5);
    ctx.lineTo(18, y);
    ctx.lineTo(11, y + 5);
  } else {
    ctx.moveTo(9, y - 3.5);
    ctx.lineTo(19, y - 3.5);
    ctx.lineTo(14, y + 3.5);
  }
  ctx.fill();
}

function paintNames(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  model: TapeModel,
  chosenRow: number,
): void {
  ctx.fillStyle = palette.paper;
  ctx.fillRect(0, RULER_PX, LABEL_PX - 8, view.heightPx);
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  ctx.fillStyle = palette.ink;
  model.rows.forEach((row, i) => {
    const y = RULER_PX + i * ROW_PX - view.scrollPx;
    if (y < RULER_PX - ROW_PX || y > view.heightPx) return;
    if (i === chosenRow) {
      ctx.fillStyle = palette.moss;
      ctx.fillRect(0, y + 3, 4, ROW_PX - 6);
      ctx.fillStyle = palette.ink;
    }
    const isFirst = i === 0 || model.rows[i - 1]!.group !== row.group;
    if (isFirst && row.group !== "time") paintFoldMark(ctx, palette, y + ROW_PX / 2, row.folded > 0);
    ctx.font = row.group === "moves" ? STRONG_FONT : NAME_FONT;
    ctx.fillStyle = row.folded > 0 ? palette.soft : palette.ink;
    ctx.fillText(fitText(ctx, row.name, LABEL_PX - 44), 26, y + ROW_PX / 2);
    ctx.fillStyle = palette.ink;
  });
}

function paintCursor(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  cursor: TapeCursor,
): void {
  if (cursor.hover >= 0 && cursor.hover !== cursor.playhead) {
    ctx.fillStyle = palette.dew;
    ctx.globalAlpha = 0.16;
    ctx.fillRect(frameToX(view, cursor.hover), RULER_PX, Math.max(1, view.pxPerFrame), view.heightPx);
    ctx.globalAlpha = 1;
  }
  const x = frameToX(view, cursor.playhead + 0.5);
  if (x < LABEL_PX || cursor.playhead < 0) return;
  ctx.fillStyle = palette.dew;
  ctx.fillRect(x - 1, 20, 2, view.heightPx);
  ctx.font = NUMBER_FONT;
  const label = String(cursor.playhead);
  const width = ctx.measureText(label).width + 16;
  ctx.beginPath();
  ctx.roundRect(x - width / 2, 2, width, 19, 5);
  ctx.fill();
  ctx.fillStyle = palette.leaf;
  ctx.textAlign = "center";
  ctx.fillText(label, x, 12);
  ctx.textAlign = "left";
}

/** Draws the visible part of the tape. */
export function paintTape(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  model: TapeModel,
  cursor: TapeCursor,
): void {
  ctx.fillStyle = palette.leaf;
  ctx.fillRect(0, 0, view.widthPx, view.heightPx);
  ctx.save();
  ctx.beginPath();
  ctx.rect(LABEL_PX - 8, RULER_PX, view.widthPx, view.heightPx);
  ctx.clip();
  paintGrid(ctx, palette, view, model.frames);
  paintModes(ctx, palette, view, model);
  paintFreezes(ctx, palette, view, model);
  paintGaps(ctx, palette, view, model);
  const endX = frameToX(view, model.frames);
  if (endX < view.widthPx) {
    ctx.fillStyle = palette.paper;
    ctx.fillRect(endX, RULER_PX, view.widthPx - endX, view.heightPx);
  }
  model.rows.forEach((row, i) => {
    const y = RULER_PX + i * ROW_PX - view.scrollPx;
    if (i > 0 && model.rows[i - 1]!.group !== row.group) {
      ctx.fillStyle = palette.line;
      ctx.fillRect(0, y, view.widthPx, 1);
    }
    if (y <= RULER_PX - ROW_PX || y >= view.heightPx) return;
    paintRow(ctx, palette, view, model, row, y);
    const ghost = cursor.ghosts[i];
    if (ghost) paintGhostRow(ctx, palette, view, model.frames, ghost, y);
  });
  paintCellNumbers(ctx, palette, view, model.frames);
  paintOtherwise(ctx, palette, view, model);
  paintLinks(ctx, palette, view, cursor.links);
  paintChanges(ctx, palette, view, cursor.changes);
  paintHandles(ctx, palette, view, cursor.handles);
  if (cursor.stroke) paintStroke(ctx, palette, view, cursor.stroke.row, cursor.stroke.from, cursor.stroke.to);
  ctx.restore();
  paintNames(ctx, palette, view, model, cursor.chosenRow);
  ctx.save();
  ctx.beginPath();
  ctx.rect(LABEL_PX - 8, 0, view.widthPx, view.heightPx);
  ctx.clip();
  paintRuler(ctx, palette, view, model);
  if (cursor.stretch) paintStretch(ctx, palette, view, cursor.stretch.from, cursor.stretch.to);
  paintCursor(ctx, palette, view, cursor);
  if (cursor.pull) paintPull(ctx, palette, view, cursor.pull.handle, cursor.pull.words);
  ctx.restore();
  paintUnits(ctx, palette);
}
