import { firstAbove } from "#core";
import { paintMark } from "./paintMark";
import { paintSpan, paintSpanText, paintWait } from "./paintSpan";
import type { Palette } from "../../ui/palette";
import type { MarkLook, TapeModel, TapeRow } from "../model/tapeRows";
import { frameToX, ROW_PX, xToFrame, type TapeView } from "../model/tapeView";

/** Draws a control's analog value as a line from the bottom (0) to the top (1) of its row. */
function paintValues(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  row: TapeRow,
  y: number,
  frames: number,
): void {
  if (row.valueFrame.length === 0) return;
  const heightOf = (value: number) => y + ROW_PX - 3 - value * (ROW_PX - 6);
  const last = xToFrame(view, view.widthPx) + 1;
  let k = Math.max(0, firstAbove(row.valueFrame, view.firstFrame) - 1);
  ctx.strokeStyle = palette.dew;
  ctx.lineWidth = 1.75;
  ctx.beginPath();
  ctx.moveTo(frameToX(view, row.valueFrame[k]!), heightOf(row.value[k]!));
  while (k < row.valueFrame.length && row.valueFrame[k]! <= last) {
    const x = frameToX(view, row.valueFrame[k]!);
    let low = row.value[k]!;
    let high = low;
    // Values within one px are drawn as one line from the lowest to the highest.
    for (k++; k < row.valueFrame.length && frameToX(view, row.valueFrame[k]!) < x + 1; k++) {
      low = Math.min(low, row.value[k]!);
      high = Math.max(high, row.value[k]!);
    }
    const held = row.value[k - 1]!;
    if (low !== high) {
      ctx.lineTo(x, heightOf(low));
      ctx.lineTo(x, heightOf(high));
    }
    ctx.lineTo(x, heightOf(held));
    ctx.lineTo(frameToX(view, row.valueFrame[k] ?? frames), heightOf(held));
  }
  ctx.stroke();
}

/** Losses and differences, which are drawn also where others would overlap them. */
const NEVER_HIDDEN: ReadonlySet<MarkLook> = new Set<MarkLook>(["lost", "failed", "differs", "absent"]);

/** Draws the marks of a row: losses are never hidden; other marks are dropped where they would overlap. */
function paintMarks(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  row: TapeRow,
  y: number,
  size: number,
): void {
  const lastFrame = xToFrame(view, view.widthPx) + 1;
  let crowdedUntil = -Infinity;
  let lostUntil = -Infinity;
  for (
    let k = firstAbove(row.markFrame, view.firstFrame - 1);
    k < row.markFrame.length && row.markFrame[k]! <= lastFrame;
    k++
  ) {
    const x = frameToX(view, row.markFrame[k]! + 0.5);
    const look = row.markLook[k]!;
    const isLoss = NEVER_HIDDEN.has(look);
    if (x < (isLoss ? lostUntil : crowdedUntil)) continue;
    paintMark(ctx, palette, look, x, y, size);
    if (size === 1 && view.pxPerFrame >= 3) paintSpanText(ctx, row.markText[k]!, palette.ink, x + 8, y, 90);
    crowdedUntil = x + 2;
    if (isLoss) lostUntil = x + 1;
  }
}

/** The width in px in which at most one of several closer stretches is drawn. */
const CROWDED_PX = 2;

/**
 * Calls back for the visible stretches, which must not overlap. When many begin within a px or two, one of
 * them is drawn, so that the cost is bounded by the width of the tape.
 */
function eachInView(
  view: TapeView,
  from: readonly number[],
  to: readonly number[],
  paint: (k: number) => void,
): void {
  const lastFrame = xToFrame(view, view.widthPx) + 1;
  const crowd = CROWDED_PX / view.pxPerFrame;
  for (let k = firstAbove(to, view.firstFrame); k < from.length && from[k]! <= lastFrame;) {
    paint(k);
    let next = to[k]! - from[k]! >= crowd ? k + 1 : firstAbove(from, from[k]! + crowd, k + 1);
    // The last of a crowd may extend beyond it.
    if (next - 1 > k && to[next - 1]! - from[next - 1]! >= crowd) next--;
    k = next;
  }
}

/** Draws the visible part of one row; `y` is its top. */
export function paintRow(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  model: TapeModel,
  row: TapeRow,
  y: number,
): void {
  eachInView(view, row.spanFrom, row.spanTo, k => paintSpan(ctx, palette, view, model, row, k, y));
  eachInView(view, row.waitFrom, row.waitTo, k =>
    paintWait(ctx, palette, view, row.waitFrom[k]!, Math.min(row.waitTo[k]!, model.frames), y),
  );
  paintValues(ctx, palette, view, row, y, model.frames);
  paintMarks(ctx, palette, view, row, y + ROW_PX / 2, 1);
}

/** Draws the same row of another trace for comparison: small marks on a line along the bottom of the row. */
export function paintGhostRow(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  frames: number,
  row: TapeRow,
  y: number,
): void {
  const foot = y + ROW_PX - 3;
  ctx.fillStyle = palette.dew;
  const bar = (from: number, to: number) => {
    const width = (Math.min(to, frames) - from) * view.pxPerFrame;
    ctx.fillRect(frameToX(view, from), foot - 1, Math.max(1.5, width), 2);
  };
  eachInView(view, row.spanFrom, row.spanTo, k => bar(row.spanFrom[k]!, row.spanTo[k]!));
  eachInView(view, row.waitFrom, row.waitTo, k => bar(row.waitFrom[k]!, row.waitTo[k]!));
  paintMarks(ctx, palette, view, row, foot - 1, 0.55);
}
