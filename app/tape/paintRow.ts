import { formatOutput, grownAt, type Growth } from "./growth";
import type { Palette } from "./palette";
import type { MarkLook, TapeModel, TapeRow } from "./tapeRows";
import { frameToX, LABEL_PX, ROW_PX, xToFrame, type TapeView } from "./tapeView";

const SMALL_FONT = '11px "Atkinson Hyperlegible Mono Variable", monospace';
const STONE_PX = 5.5;
/** How far apart the points of a wedge are drawn. */
const WEDGE_STEP_PX = 3;

/** The first place in a rising list whose value is above `frame`. */
function firstAbove(list: readonly number[], frame: number): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! > frame) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Slanting lines over a rectangle: time in which something is only promised, or nothing is. */
export function hatch(
  ctx: CanvasRenderingContext2D,
  x: number,
  y: number,
  width: number,
  height: number,
  colour: string,
): void {
  ctx.save();
  ctx.beginPath();
  ctx.rect(x, y, width, height);
  ctx.clip();
  ctx.strokeStyle = colour;
  ctx.lineWidth = 2;
  ctx.beginPath();
  for (let at = x - height; at < x + width; at += 6) {
    ctx.moveTo(at, y + height);
    ctx.lineTo(at + height, y);
  }
  ctx.stroke();
  ctx.restore();
}

/** Words in a stretch, if they fit. */
function paintSpanText(
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

/** The age of an attempt that began on a frame, at a place within a later one. */
function ageAt(model: TapeModel, growth: Growth, from: number, place: number): number {
  if (growth.isReal) return (place - from) * 100;
  const frame = Math.floor(place);
  const ticks = model.clock.ticksAt(frame);
  return ticks + (place - frame) * (model.clock.ticksAt(frame + 1) - ticks) - model.clock.ticksAt(from);
}

/** A wedge that rises as the attempt grows, with a notch at each level of a charge and its worth at the end. */
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
  for (const level of growth.levels) {
    const at = growth.isReal ? from + level.atTicks / 100 : model.clock.frameAtAge(from, level.atTicks);
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

function paintSpan(
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
      ctx.fill();
      break;
    case "speed":
    case "facing":
      ctx.fillStyle = look === "speed" ? palette.sand : palette.paper;
      ctx.strokeStyle = palette.bark;
      ctx.lineWidth = 1.5;
      ctx.beginPath();
      ctx.roundRect(x + 0.75, middle - 8, Math.max(1, width - 1.5), 16, Math.min(4, width / 2));
      ctx.fill();
      ctx.stroke();
      paintSpanText(
        ctx,
        width < 30 ? row.spanText[k]!.slice(0, 1) : row.spanText[k]!,
        palette.ink,
        x,
        middle,
        width,
      );
      break;
    case "open":
    case "window":
      ctx.fillStyle = palette.lichen;
      ctx.fillRect(x, middle - 9, width, 18);
      break;
    case "forgiven":
    case "lead":
      hatch(ctx, x, middle - 9, width, 18, palette.lichen);
      break;
    case "forming":
      if (row.growth) {
        paintGrowth(ctx, palette, view, model, row.growth, from, to, y);
        break;
      }
      ctx.fillStyle = palette.fern;
      ctx.beginPath();
      ctx.moveTo(x, middle + 8);
      ctx.lineTo(x + width, middle + 8);
      ctx.lineTo(x + width, middle - 8);
      ctx.fill();
      break;
    case "sustained":
      ctx.fillStyle = palette.moss;
      ctx.fillRect(x, middle - 2, width, 4);
      break;
    case "waiting":
      ctx.strokeStyle = palette.ink;
      ctx.lineWidth = 2;
      ctx.setLineDash([2, 4]);
      ctx.beginPath();
      ctx.moveTo(x, middle);
      ctx.lineTo(x + width, middle);
      ctx.stroke();
      ctx.setLineDash([]);
      break;
    case "startup":
    case "active":
    case "recovery":
      ctx.fillStyle = look === "active" ? palette.moss : palette.fern;
      if (look === "recovery") hatch(ctx, x, middle - 4, width, 8, palette.fern);
      else ctx.fillRect(x, middle - 4, width, 8);
      break;
  }
}

/** A ring with a gap: something that came to nothing. */
function brokenRing(
  ctx: CanvasRenderingContext2D,
  x: number,
  y: number,
  radius: number,
  colour: string,
): void {
  ctx.strokeStyle = colour;
  ctx.lineWidth = 2.5;
  ctx.beginPath();
  ctx.arc(x, y, radius, Math.PI * 0.85, Math.PI * 2.35);
  ctx.stroke();
}

/** One mark: a whole stone performed or answered, a ring fired, a broken ring lost or failed, a cross lapsed, a small dashed ring beaten (its press was used by another move). */
export function paintMark(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  look: MarkLook,
  x: number,
  y: number,
  size = 1,
): void {
  const radius = STONE_PX * size;
  switch (look) {
    case "performed":
    case "answered":
      ctx.fillStyle = palette.moss;
      ctx.beginPath();
      ctx.ellipse(x, y, radius + 2.5 * size, radius + 0.5, 0, 0, Math.PI * 2);
      ctx.fill();
      break;
    case "fired":
      ctx.fillStyle = palette.leaf;
      ctx.strokeStyle = palette.moss;
      ctx.lineWidth = 2.5;
      ctx.beginPath();
      ctx.arc(x, y, radius - 0.5, 0, Math.PI * 2);
      ctx.fill();
      ctx.stroke();
      break;
    case "lost":
    case "failed":
      brokenRing(ctx, x, y, radius - 0.5, palette.foxglove);
      break;
    case "beaten":
      ctx.strokeStyle = palette.soft;
      ctx.lineWidth = 1.5;
      ctx.setLineDash([2, 2]);
      ctx.beginPath();
      ctx.arc(x, y, radius * 0.6, 0, Math.PI * 2);
      ctx.stroke();
      ctx.setLineDash([]);
      break;
    case "lapsed":
      ctx.strokeStyle = palette.soft;
      ctx.lineWidth = 2;
      ctx.beginPath();
      ctx.moveTo(x - 4 * size, y - 4 * size);
      ctx.lineTo(x + 4 * size, y + 4 * size);
      ctx.moveTo(x + 4 * size, y - 4 * size);
      ctx.lineTo(x - 4 * size, y + 4 * size);
      ctx.stroke();
      break;
  }
}

/** A control's analog value as a line from bottom (0) to top (1) of its row. */
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
  for (; k < row.valueFrame.length && row.valueFrame[k]! <= last; k++) {
    const end = row.valueFrame[k + 1] ?? frames;
    ctx.lineTo(frameToX(view, row.valueFrame[k]!), heightOf(row.value[k]!));
    ctx.lineTo(frameToX(view, end), heightOf(row.value[k]!));
  }
  ctx.stroke();
}

/** The marks of a row: none vanishes that says a loss; others give way where they would lie on each other. */
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
  for (
    let k = firstAbove(row.markFrame, view.firstFrame - 1);
    k < row.markFrame.length && row.markFrame[k]! <= lastFrame;
    k++
  ) {
    const x = frameToX(view, row.markFrame[k]! + 0.5);
    const look = row.markLook[k]!;
    if (x < crowdedUntil && look !== "lost" && look !== "failed") continue;
    paintMark(ctx, palette, look, x, y, size);
    if (size === 1 && view.pxPerFrame >= 3) paintSpanText(ctx, row.markText[k]!, palette.ink, x + 8, y, 90);
    crowdedUntil = x + 2;
  }
}

/** Draws one row at `y`, its top; only what the view shows. */
export function paintRow(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  model: TapeModel,
  row: TapeRow,
  y: number,
): void {
  const lastFrame = xToFrame(view, view.widthPx) + 1;
  for (
    let k = firstAbove(row.spanTo, view.firstFrame);
    k < row.spanFrom.length && row.spanFrom[k]! <= lastFrame;
    k++
  )
    paintSpan(ctx, palette, view, model, row, k, y);
  paintValues(ctx, palette, view, row, y, model.frames);
  paintMarks(ctx, palette, view, row, y + ROW_PX / 2, 1);
}

/** The same row of another trace, laid over: small marks on a line along the foot of the row. */
export function paintGhostRow(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  view: TapeView,
  frames: number,
  row: TapeRow,
  y: number,
): void {
  const lastFrame = xToFrame(view, view.widthPx) + 1;
  const foot = y + ROW_PX - 3;
  ctx.fillStyle = palette.dew;
  for (
    let k = firstAbove(row.spanTo, view.firstFrame);
    k < row.spanFrom.length && row.spanFrom[k]! <= lastFrame;
    k++
  ) {
    const to = Math.min(row.spanTo[k]!, frames);
    ctx.fillRect(
      frameToX(view, row.spanFrom[k]!),
      foot - 1,
      Math.max(1.5, (to - row.spanFrom[k]!) * view.pxPerFrame),
      2,
    );
  }
  paintMarks(ctx, palette, view, row, foot - 1, 0.55);
}
