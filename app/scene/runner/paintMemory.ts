import { paintHatch } from "../../ui/paintHatch";
import type { Palette } from "../../ui/palette";
import type { Scene } from "../scene";
import { STAGE_FONT } from "../scenery";

/** Paints a buffered press as a dot over the head, and the coyote ground hatched below the feet. */
export function paintMemory(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Scene,
  x: number,
  y: number,
): void {
  if (!scene.state || scene.state.requestCount === 0) return;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 2;
  ctx.setLineDash([2, 3]);
  ctx.beginPath();
  ctx.arc(x, y - 12, 7, 0, Math.PI * 2);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = STAGE_FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText("buffered", x + 12, y - 8);
}

/** Returns whether the ground that was left is still within a coyote. */
export function isForgiven({ state, stage }: Scene): boolean {
  return stage.kind === "runner" && stage.gates.footing >= 0 && state?.gateTrails[stage.gates.footing] === 1;
}

/** Paints the ground that still counts: hatched below the feet. */
export function paintForgiven(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  y: number,
  px: number,
): void {
  paintHatch(ctx, x - px * 0.7, y, px * 1.4, 9, palette.lichen);
  ctx.font = STAGE_FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText("coyote", x + px * 0.8, y + 8);
}
