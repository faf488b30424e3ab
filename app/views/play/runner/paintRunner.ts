import { BODY_HEIGHT, HALF_WIDTH, type RunnerProgram } from "#stage";
import type { Palette } from "../../../ui/palette";
import { paintArcs } from "./paintArcs";
import { isForgiven, paintForgiven, paintMemory } from "./paintMemory";
import { paintMeters } from "../paintMeters";
import { followBody, showWhole, STAGE_FONT, type Eye } from "../scenery";
import type { TilePlace } from "../../../edits/levelEdits";
import type { StagePicture } from "../stageScreens";

const METER_PX = 80;
function paintLevel(ctx: CanvasRenderingContext2D, palette: Palette, stage: RunnerProgram, eye: Eye): void {
  const { level } = stage;
  for (let r = 0; r < level.height; r++) {
    for (let c = 0; c < level.width; c++) {
      const at = r * level.width + c;
      const x = c * eye.px - eye.left;
      const y = eye.foot - (level.height - r) * eye.px;
      if (level.solid[at] === 1) {
        ctx.fillStyle = palette.bark;
        ctx.fillRect(x, y, eye.px + 0.5, eye.px + 0.5);
        if (r === 0 || level.solid[at - level.width] !== 1) {
          ctx.fillStyle = palette.moss;
          ctx.fillRect(x, y, eye.px + 0.5, Math.max(4, eye.px * 0.22));
        }
      } else if (level.zone[at]! > 0) paintBell(ctx, palette, x + eye.px / 2, y, eye.px);
    }
  }
}

/** A bell on its rope: what a zone is drawn as. */
function paintBell(ctx: CanvasRenderingContext2D, palette: Palette, x: number, y: number, px: number): void {
  ctx.strokeStyle = palette.soft;
  ctx.lineWidth = 1.5;
  ctx.beginPath();
  ctx.moveTo(x, 0);
  ctx.lineTo(x, y);
  ctx.stroke();
  ctx.fillStyle = palette.lichen;
  ctx.beginPath();
  ctx.moveTo(x - px * 0.45, y + px * 0.7);
  ctx.quadraticCurveTo(x - px * 0.3, y + px * 0.55, x - px * 0.28, y + px * 0.25);
  ctx.quadraticCurveTo(x, y - px * 0.15, x + px * 0.28, y + px * 0.25);
  ctx.quadraticCurveTo(x + px * 0.3, y + px * 0.55, x + px * 0.45, y + px * 0.7);
  ctx.fill();
}

/** The ringer: a hood, a coat, two feet. A ghost is an outline. */
function paintRinger(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  y: number,
  px: number,
  facing: number,
  isGhost: boolean,
): void {
  const height = BODY_HEIGHT * px;
  const half = HALF_WIDTH * px;
  ctx.lineWidth = 2;
  ctx.strokeStyle = palette.dew;
  ctx.fillStyle = palette.ink;
  ctx.beginPath();
  ctx.moveTo(x - half, y);
  ctx.lineTo(x - half * 0.6, y - height * 0.55);
  ctx.lineTo(x + half * 0.6, y - height * 0.55);
  ctx.lineTo(x + half, y);
  ctx.closePath();
  if (isGhost) ctx.stroke();
  else ctx.fill();
  ctx.fillStyle = palette.moss;
  ctx.beginPath();
  ctx.arc(x + facing * half * 0.15, y - height * 0.72, height * 0.27, 0, Math.PI * 2);
  if (isGhost) ctx.stroke();
  else ctx.fill();
  if (isGhost) return;
  ctx.fillStyle = palette.paper;
  ctx.beginPath();
  ctx.arc(x + facing * half * 0.5, y - height * 0.72, height * 0.09, 0, Math.PI * 2);
  ctx.fill();
}

/** The level as it is drawn by hand: a line about every tile, where the body starts, and the tile the hand is at. */
function paintSheet(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { level }: RunnerProgram,
  eye: Eye,
  cursor: TilePlace,
): void {
  const top = eye.foot - level.height * eye.px;
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (let c = 0; c <= level.width; c++) {
    ctx.moveTo(c * eye.px - eye.left, top);
    ctx.lineTo(c * eye.px - eye.left, eye.foot);
  }
  for (let r = 0; r <= level.height; r++) {
    ctx.moveTo(-eye.left, top + r * eye.px);
    ctx.lineTo(level.width * eye.px - eye.left, top + r * eye.px);
  }
  ctx.stroke();
  ctx.strokeStyle = palette.dew;
  ctx.lineWidth = 2;
  ctx.strokeRect(cursor.column * eye.px - eye.left, top + cursor.row * eye.px, eye.px, eye.px);
  paintRinger(
    ctx,
    palette,
    level.startX * eye.px - eye.left,
    eye.foot - level.startY * eye.px,
    eye.px,
    1,
    true,
  );
}

/** Draws the runner's level and body; only the level, as a sheet of tiles, while it is being drawn by hand. */
export function paintRunner({ ctx, palette, scene, width, height, helps, cursor }: StagePicture): void {
  if (scene.stage.kind !== "runner") return;
  const { stage, track, frame } = scene;
  if (cursor) {
    const whole = showWhole(stage, width, height);
    paintLevel(ctx, palette, stage, whole);
    return paintSheet(ctx, palette, stage, whole, cursor);
  }
  const at = Math.min(frame, Math.floor(track.length / 2) - 1) * 2;
  const x = at >= 0 ? track[at]! : stage.level.startX;
  const y = at >= 0 ? track[at + 1]! : stage.level.startY;
  const eye = followBody(stage, x, y, width, height);
  const bodyX = x * eye.px - eye.left;
  const bodyY = eye.foot - y * eye.px;
  paintLevel(ctx, palette, stage, eye);
  if (helps.arcs) paintArcs(ctx, palette, scene, eye, bodyX, bodyY);
  const facing = at >= 2 && track[at - 2]! > x + 1e-4 ? -1 : 1;
  if (scene.other && scene.other.track.length > at + 1 && at >= 0) {
    const otherX = scene.other.track[at]! * eye.px - eye.left;
    const otherY = eye.foot - scene.other.track[at + 1]! * eye.px;
    paintRinger(ctx, palette, otherX, otherY, eye.px, facing, true);
    ctx.font = STAGE_FONT;
    ctx.fillStyle = palette.dew;
    ctx.fillText(scene.other.name, otherX + 12, otherY - BODY_HEIGHT * eye.px - 6);
  }
  paintRinger(ctx, palette, bodyX, bodyY, eye.px, facing, false);
  if (helps.meters) paintMeters(ctx, palette, scene, bodyX, bodyY - BODY_HEIGHT * eye.px - 26, METER_PX);
  if (helps.memory && isForgiven(scene)) paintForgiven(ctx, palette, bodyX, bodyY, eye.px);
  if (helps.memory) paintMemory(ctx, palette, scene, bodyX, bodyY - BODY_HEIGHT * eye.px);
}
