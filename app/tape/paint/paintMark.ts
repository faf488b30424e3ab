import type { Palette } from "../../ui/palette";
import type { MarkLook } from "../model/tapeRows";

const STONE_PX = 5.5;

/** Draws a ring with a gap: a loss. */
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

/** Outlines a square that stands on its corner: an act of the game. */
function outlineDiamond(ctx: CanvasRenderingContext2D, x: number, y: number, radius: number): void {
  ctx.beginPath();
  ctx.moveTo(x, y - radius);
  ctx.lineTo(x + radius, y);
  ctx.lineTo(x, y + radius);
  ctx.lineTo(x - radius, y);
  ctx.closePath();
}

/**
 * Draws one mark: a full disc for performed or answered, a ring for fired, a broken ring for lost or failed,
 * a cross for lapsed, a small dashed ring for beaten (another move used its press). Acts of a running game: a full
 * diamond as the rules have it, an open one apart from them, a dashed one where the rules alone acted.
 */
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
    case "did":
      ctx.fillStyle = palette.moss;
      outlineDiamond(ctx, x, y, radius);
      ctx.fill();
      break;
    case "differs":
    case "absent":
      ctx.strokeStyle = palette.foxglove;
      ctx.lineWidth = 2;
      if (look === "absent") ctx.setLineDash([2, 2]);
      outlineDiamond(ctx, x, y, radius);
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
