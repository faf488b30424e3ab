import { paintHatch } from "../../ui/paintHatch";
import type { Palette } from "../../ui/palette";
import type { Scene } from "../scene";
import { STAGE_FONT } from "../scenery";

/** A press that is remembered, as a dot over the head; the edge that is still forgiven, hatched under the feet. */
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
  ctx.fillText("remembered", x + 12, y - 8);
}

/** Is the ground that was left still forgiven? */
export function isForgiven({ state, stage }: Scene): boolean {
  return stage.kind === "runner" && stage.gates.footing >= 0 && state?.gateTrails[stage.gates.footing] === 1;
}

/** The edge that still counts: hatched ground under the feet, though there is none. */
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
  ctx.fillText("still forgiven", x + px * 0.8, y + 8);
}
