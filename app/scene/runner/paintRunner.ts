import {
  BODY_HEIGHT,
  clockOf,
  HALF_WIDTH,
  isOverBeam,
  placeBeam,
  SOLID,
  THIN,
  type RunnerProgram,
} from "#stage";
import { formatFixed } from "../../ui/numberText";
import type { Palette } from "../../ui/palette";
import { paintBell, paintTower } from "../backdrop";
import { paintRinger, type Posture } from "../paintRinger";
import { paintArcs } from "./paintArcs";
import { isForgiven, paintForgiven, paintMemory } from "./paintMemory";
import { paintMeters } from "../paintMeters";
import { followBody, showWhole, STAGE_FONT, STAGE_NUMBER_FONT, type Eye } from "../scenery";
import type { TilePlace } from "../../edits/levelEdits";
import type { StagePicture } from "../stagePainters";

const METER_PX = 80;
/** A body faster than this, in tiles per frame, runs; one that rises or falls faster is in the air. */
const RUNS = 0.02;
const FLIES = 0.01;

/** Paints one solid tile: planks with moss if it is open above, and a shade if it is open below. */
function paintTile(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  stage: RunnerProgram,
  r: number,
  c: number,
  x: number,
  y: number,
  px: number,
): void {
  const { level } = stage;
  const at = r * level.width + c;
  const isOpen = (place: number, isInside: boolean) => !isInside || level.solid[place] !== SOLID;
  ctx.fillStyle = palette.bark;
  ctx.fillRect(x, y, px + 0.5, px + 0.5);
  ctx.globalAlpha = 0.22;
  ctx.fillStyle = palette.ink;
  ctx.fillRect(x, y + px * (c % 2 === 0 ? 0.52 : 0.7), px + 0.5, 1.5);
  if (c % 3 === 0) ctx.fillRect(x, y, 1.5, px);
  if (isOpen(at + level.width, r + 1 < level.height)) ctx.fillRect(x, y + px * 0.8, px + 0.5, px * 0.2);
  if (isOpen(at - 1, c > 0)) ctx.fillRect(x, y, px * 0.1, px);
  if (isOpen(at + 1, c + 1 < level.width)) ctx.fillRect(x + px * 0.9, y, px * 0.1, px);
  ctx.globalAlpha = 1;
  if (!isOpen(at - level.width, r > 0)) return;
  ctx.fillStyle = palette.moss;
  ctx.fillRect(x, y, px + 0.5, Math.max(4, px * 0.2));
  ctx.beginPath();
  ctx.arc(x + px * 0.3, y + px * 0.2, px * 0.13, 0, Math.PI);
  ctx.arc(x + px * 0.72, y + px * 0.18, px * 0.1, 0, Math.PI);
  ctx.fill();
}

/** Paints tiles that hold from above only: a narrow plank with moss on it. */
function paintThin(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  y: number,
  px: number,
  tiles = 1,
): void {
  ctx.fillStyle = palette.bark;
  ctx.fillRect(x, y, px * tiles + 0.5, px * 0.26);
  ctx.fillStyle = palette.moss;
  ctx.fillRect(x, y, px * tiles + 0.5, Math.max(3, px * 0.12));
}

function paintLevel(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  stage: RunnerProgram,
  eye: Eye,
  width: number,
  swing: number,
): void {
  const { level } = stage;
  const first = Math.max(0, Math.floor(eye.left / eye.px));
  const last = Math.min(level.width - 1, Math.ceil((eye.left + width) / eye.px));
  for (let r = 0; r < level.height; r++) {
    for (let c = first; c <= last; c++) {
      const at = r * level.width + c;
      const x = c * eye.px - eye.left;
      const y = eye.foot - (level.height - r) * eye.px;
      if (level.solid[at] === SOLID) paintTile(ctx, palette, stage, r, c, x, y, eye.px);
      else if (level.solid[at] === THIN) paintThin(ctx, palette, x, y, eye.px);
      else if (level.zone[at]! > 0 && (r === 0 || level.zone[at - level.width] !== level.zone[at])) {
        ctx.fillStyle = palette.soft;
        ctx.fillRect(x + eye.px / 2 - 0.75, 0, 1.5, y);
        paintBell(ctx, palette, x + eye.px / 2, y, eye.px * 0.95, swing);
      }
    }
  }
}

/** Paints the beams that move, where they are after some frames of the game clock, with their ways. */
function paintBeams(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { beams }: RunnerProgram,
  eye: Eye,
  clockFrames: number,
): void {
  for (const beam of beams) {
    const toX = (x: number) => (x + beam.width / 2) * eye.px - eye.left;
    const toY = (y: number) => eye.foot - y * eye.px;
    ctx.strokeStyle = palette.soft;
    ctx.lineWidth = 1;
    ctx.setLineDash([3, 5]);
    ctx.beginPath();
    ctx.moveTo(toX(beam.x), toY(beam.y));
    ctx.lineTo(toX(beam.x + beam.across), toY(beam.y + beam.up));
    ctx.stroke();
    ctx.setLineDash([]);
    const { x, y } = placeBeam(beam, clockFrames);
    paintThin(ctx, palette, x * eye.px - eye.left, toY(y), eye.px, beam.width);
  }
}

/** Returns the posture of the ringer from the body's last and current position. */
function postureOf(track: ArrayLike<number>, at: number, px: number, bodyX: number, bodyY: number): Posture {
  const was = (back: number, k: 0 | 1) => track[Math.max(0, at - 2 * back) + k] ?? 0;
  const vx = at >= 2 ? was(0, 0) - was(1, 0) : 0;
  const vy = at >= 2 ? was(0, 1) - was(1, 1) : 0;
  let facing: 1 | -1 = 1;
  for (let back = 0; back < 240 && at - 2 * back >= 2; back++) {
    const by = was(back, 0) - was(back + 1, 0);
    if (Math.abs(by) < 1e-4) continue;
    facing = by < 0 ? -1 : 1;
    break;
  }
  const isAloft = Math.abs(vy) > FLIES;
  const speed = Math.abs(vx);
  const isRunning = speed > RUNS;
  const stride = isAloft ? undefined : isRunning ? was(0, 0) * 3.4 : 0;
  const rising = vy > FLIES;
  const arms: readonly [number, number] = isAloft
    ? rising
      ? [2.5, 2]
      : [1.7, -1.7]
    : isRunning
      ? [Math.sin(was(0, 0) * 3.4) * 0.9, -Math.sin(was(0, 0) * 3.4) * 0.9]
      : [0.15, -0.15];
  return {
    x: bodyX,
    y: bodyY,
    height: BODY_HEIGHT * px * 1.12,
    facing,
    lean: Math.min(1, speed * 4) + (isAloft && !rising ? -0.2 : 0),
    stride,
    arms,
    wind: Math.min(1, speed * 6),
    rise: Math.max(-1, Math.min(1, -vy * 4)),
  };
}

const STANDING: Omit<Posture, "x" | "y" | "height"> = {
  facing: 1,
  lean: 0,
  stride: 0,
  arms: [0.15, -0.15],
  wind: 0,
  rise: 0,
};

/**
 * Paints the level in the editor: a line around every tile, the body's start, and the tile below the pointer.
 */
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
  const start = { x: level.startX * eye.px - eye.left, y: eye.foot - level.startY * eye.px };
  paintRinger(ctx, palette, { ...STANDING, ...start, height: BODY_HEIGHT * eye.px }, true);
}

/** Paints the body's position and speed as numbers: tiles, tiles per second, and frames in the air. */
function paintFigures(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { track, program }: StagePicture["scene"],
  at: number,
  body: { readonly x: number; readonly y: number },
): void {
  if (at < 2) return;
  const speed = (k: 0 | 1) => (track[at + k]! - track[at - 2 + k]!) * program.rateHz;
  let air = 0;
  while (at - 2 * air >= 2 && Math.abs(track[at - 2 * air + 1]! - track[at - 2 * air - 1]!) > 1e-6) air++;
  const words = [
    `at ${formatFixed(body.x, 1)}, ${formatFixed(body.y, 2)} high`,
    `${formatFixed(speed(0), 1)} across, ${formatFixed(speed(1), 1)} up, tiles a second`,
    ...(air > 0 ? [`${air}f in the air`] : []),
  ];
  ctx.font = STAGE_NUMBER_FONT;
  ctx.fillStyle = palette.soft;
  ctx.textAlign = "left";
  ctx.textBaseline = "alphabetic";
  ctx.fillText(words.join("  ·  "), 16, 32);
}

/** Returns the height of the first solid tile below a position, in tiles; −∞ if there is none. */
function tileUnder({ level }: RunnerProgram, x: number, y: number): number {
  const c = Math.floor(x);
  if (c < 0 || c >= level.width) return -Infinity;
  for (let top = Math.min(level.height, Math.floor(y + 1e-3)); top > 0; top--)
    if (level.solid[(level.height - top) * level.width + c] !== 0) return top;
  return -Infinity;
}

/**
 * Returns the height of the first tile or moving beam below a position, in tiles; −∞ if there is none. `clock`: the frames of
 * the game clock at which the beams are.
 */
export function groundUnder(program: RunnerProgram, x: number, y: number, clock: number): number {
  const beams = program.beams.flatMap(beam => {
    const place = placeBeam(beam, clock);
    return place.y <= y + 0.05 && isOverBeam(beam, place.x, x, 0) ? [place.y] : [];
  });
  return Math.max(tileUnder(program, x, y), ...beams);
}

/** Paints the runner's level and body; in the level editor only the level, as a grid of tiles. */
export function paintRunner({ ctx, palette, scene, width, height, helps, cursor }: StagePicture): void {
  if (scene.stage.kind !== "runner") return;
  const { stage, track, frame } = scene;
  if (cursor) {
    const whole = showWhole(stage, width, height);
    paintLevel(ctx, palette, stage, whole, width, 0);
    paintBeams(ctx, palette, stage, whole, 0);
    return paintSheet(ctx, palette, stage, whole, cursor);
  }
  const at = Math.min(frame, Math.floor(track.length / 2) - 1) * 2;
  const x = at >= 0 ? track[at]! : stage.level.startX;
  const y = at >= 0 ? track[at + 1]! : stage.level.startY;
  const eye = followBody(stage, x, y, width, height, helps.closeness);
  const bodyX = x * eye.px - eye.left;
  const bodyY = eye.foot - y * eye.px;
  paintTower(ctx, palette, width, height, eye.left);
  paintLevel(ctx, palette, stage, eye, width, Math.sin(frame / 38) * 0.05);
  const clock = scene.state ? clockOf(scene.state) : 0;
  paintBeams(ctx, palette, stage, eye, clock);
  if (helps.arcs) paintArcs(ctx, palette, scene, eye, bodyX, bodyY);
  const posture = postureOf(track, Math.max(0, at), eye.px, bodyX, bodyY);
  if (scene.other && scene.other.track.length > at + 1 && at >= 0) {
    const otherX = scene.other.track[at]! * eye.px - eye.left;
    const otherY = eye.foot - scene.other.track[at + 1]! * eye.px;
    paintRinger(ctx, palette, { ...posture, x: otherX, y: otherY }, true);
    ctx.font = STAGE_FONT;
    ctx.fillStyle = palette.dew;
    ctx.fillText(scene.other.name, otherX + 12, otherY - BODY_HEIGHT * eye.px - 6);
  }
  ctx.globalAlpha = 0.18;
  ctx.fillStyle = palette.ink;
  const ground = groundUnder(stage, x, y, clock);
  if (ground > -Infinity) {
    const wide = HALF_WIDTH * eye.px * Math.max(0.4, 1.3 - (y - ground) * 0.2);
    ctx.beginPath();
    ctx.ellipse(bodyX, eye.foot - ground * eye.px + 2, wide, 4, 0, 0, Math.PI * 2);
    ctx.fill();
  }
  ctx.globalAlpha = 1;
  paintRinger(ctx, palette, posture);
  if (helps.meters) paintFigures(ctx, palette, scene, at, { x, y });
  if (helps.meters) paintMeters(ctx, palette, scene, bodyX, bodyY - BODY_HEIGHT * eye.px - 26, METER_PX);
  if (helps.memory && isForgiven(scene)) paintForgiven(ctx, palette, bodyX, bodyY, eye.px);
  if (helps.memory) paintMemory(ctx, palette, scene, bodyX, bodyY - BODY_HEIGHT * eye.px);
}
