import { formatOutput, grownAt, TICKS, type Growth } from "#core";
import { paintHatch } from "../../ui/paintHatch";
import type { Palette } from "../../ui/palette";
import type { TapeModel, TapeRow } from "../model/tapeRows";
import { frameToX, LABEL_PX, ROW_PX, type TapeView } from "../model/tapeView";

const SMALL_FONT = '11px "Atkinson Hyperlegible Mono Variable", monospace';
/** The distance of the points of a wedge. */
const WEDGE_STEP_PX = 3;

/** Draws text in a stretch, if it fits. */
export function paintSpanText(
  ctx: CanvasRenderingContext2D,
  text: string,
  colour: string,
  x: number,
  y: number,
  width: number,
): void {
  if (text === "" || width < 12) return;
  ctx.font = SMALL_FONT;
  if (ctx.measureText(text).width > width - 6) return;
  ctx.fillStyle = colour;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  ctx.fillText(text, x + 4, y);
}

/** Returns the age of an attempt at a position within a later frame. */
function ageAt(model: TapeModel, growth: Growth, from: number, place: number): number {
  if (growth.isReal) return (place - from) * TICKS;
  const frame = Math.floor(place);
  const ticks = model.clock.ticksAt(frame);
  return ticks + (place - frame) * (model.clock.ticksAt(frame + 1) - ticks) - model.clock.ticksAt(from);
}

/**
 * Draws a wedge that rises with the attempt's growth, with a notch at each level of a charge and its output
 * at the end.
 */
function paintGrowth(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  model: TapeModel,
  growth: Growth,
  from: number,
  to: number,
  y: number,
): void {
  const floor = y + ROW_PX / 2 + 8;
  const room = 16;
  const x0 = frameToX(view, from);
  const x1 = frameToX(view, to);
  const left = Math.max(LABEL_PX - 8, x0);
  const right = Math.min(view.widthPx, x1);
  if (right < left) return;
  const grown = (x: number) => {
    const place = view.firstFrame + (x - LABEL_PX) / view.pxPerFrame;
    return Math.max(0, Math.min(1.05, grownAt(growth, ageAt(model, growth, from, place))));
  };
  ctx.fillStyle = palette.fern;
  ctx.beginPath();
  ctx.moveTo(left, floor);
  for (let x = left; x < right; x += WEDGE_STEP_PX) ctx.lineTo(x, floor - grown(x) * room);
  ctx.lineTo(right, floor - grown(right) * room);
  ctx.lineTo(right, floor);
  ctx.fill();
  paintSlope(ctx, palette, left, right, x => floor - grown(x) * room);
  for (const level of growth.levels) {
    const at = growth.isReal ? from + level.atTicks / TICKS : model.clock.frameAtAge(from, level.atTicks);
    if (at > to) continue;
    const x = frameToX(view, at);
    ctx.fillStyle = palette.moss;
    ctx.fillRect(x - 0.75, y + 4, 1.5, ROW_PX - 8);
    if (view.pxPerFrame >= 5) paintSpanText(ctx, level.name, palette.ink, x - 1, y + 8, 90);
  }
  const worth = growth.output ? formatOutput(growth, ageAt(model, growth, from, to)) : "";
  if (worth === "" || x1 - x0 < 110 || x1 > view.widthPx + 40) return;
  ctx.font = SMALL_FONT;
  ctx.fillStyle = palette.ink;
  ctx.textBaseline = "middle";
  ctx.textAlign = "right";
  ctx.fillText(worth, x1 - 10, floor - 5);
  ctx.textAlign = "left";
}

/** Draws the upper and the lower edge of a bar, whose fill alone would hardly differ from the paper. */
function paintEdges(
  ctx: CanvasRenderingContext2D,
  colour: string,
  x: number,
  top: number,
  width: number,
  height: number,
): void {
  ctx.fillStyle = colour;
  ctx.fillRect(x, top, width, 1);
  ctx.fillRect(x, top + height - 1, width, 1);
}

/** Draws a stretch in which a gate or a window is open; hatched where it only counts as open. */
function paintOpen(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  middle: number,
  width: number,
  isHatched: boolean,
): void {
  ctx.fillStyle = palette.lichen;
  if (isHatched) paintHatch(ctx, x, middle - 9, width, 18, palette.lichen);
  else ctx.fillRect(x, middle - 9, width, 18);
  paintEdges(ctx, palette.lichenInk, x, middle - 9, width, 18);
}

/** Draws a phase of a move. */
function paintPhase(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  middle: number,
  width: number,
  phase: "startup" | "active" | "recovery",
): void {
  ctx.fillStyle = phase === "active" ? palette.moss : palette.fern;
  if (phase === "recovery") paintHatch(ctx, x, middle - 4, width, 8, palette.fern);
  else ctx.fillRect(x, middle - 4, width, 8);
  paintEdges(ctx, palette.moss, x, middle - 4, width, 8);
}

/** Draws a wedge that rises to its end: an attempt without a length to grow to. */
function paintWedge(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  middle: number,
  width: number,
): void {
  ctx.fillStyle = palette.fern;
  ctx.beginPath();
  ctx.moveTo(x, middle + 8);
  ctx.lineTo(x + width, middle + 8);
  ctx.lineTo(x + width, middle - 8);
  ctx.fill();
  paintSlope(ctx, palette, x, x + width, at => middle + 8 - (16 * (at - x)) / Math.max(1, width));
}

/** Draws the upper edge of a wedge. */
function paintSlope(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  from: number,
  to: number,
  yAt: (x: number) => number,
): void {
  ctx.strokeStyle = palette.moss;
  ctx.lineWidth = 1;
  ctx.beginPath();
  ctx.moveTo(from, yAt(from));
  for (let x = from; x < to; x += WEDGE_STEP_PX) ctx.lineTo(x, yAt(x));
  ctx.lineTo(to, yAt(to));
  ctx.stroke();
}

/** Draws an outlined stretch with its text; a narrow one keeps only the first letter. */
function paintLabelled(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  fill: string,
  text: string,
  x: number,
  middle: number,
  width: number,
): void {
  ctx.fillStyle = fill;
  ctx.strokeStyle = palette.bark;
  ctx.lineWidth = 1.5;
  ctx.beginPath();
  ctx.roundRect(x + 0.75, middle - 8, Math.max(1, width - 1.5), 16, Math.min(4, width / 2));
  ctx.fill();
  ctx.stroke();
  paintSpanText(ctx, width < 30 ? text.slice(0, 1) : text, palette.ink, x, middle, width);
}

/** Draws one stretch of a row, by its look. */
export function paintSpan(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  model: TapeModel,
  row: TapeRow,
  k: number,
  y: number,
): void {
  const from = row.spanFrom[k]!;
  const to = Math.min(row.spanTo[k]!, model.frames);
  const x = frameToX(view, from);
  const width = Math.max(1.5, (to - from) * view.pxPerFrame);
  const middle = y + ROW_PX / 2;
  const look = row.spanLook[k]!;
  switch (look) {
    case "down":
      ctx.fillStyle = palette.bark;
      ctx.beginPath();
      ctx.roundRect(x, middle - 7, width, 14, Math.min(3, width / 2));
      // A press that was not meant is an outline.
      if (row.spanText[k] === "") ctx.fill();
      else {
        ctx.strokeStyle = palette.bark;
        ctx.lineWidth = 1.5;
        ctx.stroke();
      }
      break;
    case "speed":
    case "named":
    case "facing":
      paintLabelled(
        ctx,
        palette,
        look === "facing" ? palette.paper : palette.sand,
        row.spanText[k]!,
        x,
        middle,
        width,
      );
      break;
    case "open":
    case "window":
      paintOpen(ctx, palette, x, middle, width, false);
      break;
    case "forgiven":
    case "lead":
      paintOpen(ctx, palette, x, middle, width, true);
      break;
    case "forming":
      if (row.growth) paintGrowth(ctx, palette, view, model, row.growth, from, to, y);
      else paintWedge(ctx, palette, x, middle, width);
      break;
    case "sustained":
      ctx.fillStyle = palette.moss;
      ctx.fillRect(x, middle - 2, width, 4);
      break;
    case "startup":
    case "active":
    case "recovery":
      paintPhase(ctx, palette, x, middle, width, look);
      break;
  }
}

/** Draws how long a press was buffered: a trail of dots along the middle of its move's row. */
export function paintWait(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  from: number,
  to: number,
  y: number,
): void {
  const middle = y + ROW_PX / 2;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 2;
  ctx.setLineDash([2, 4]);
  ctx.beginPath();
  ctx.moveTo(frameToX(view, from), middle);
  ctx.lineTo(frameToX(view, to), middle);
  ctx.stroke();
  ctx.setLineDash([]);
}
