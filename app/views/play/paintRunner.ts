import { FORMING, notes, readMeter, SUSTAINED } from "#core";
import { BODY_HEIGHT, HALF_WIDTH, type RunnerProgram } from "#stage";
import { hatch } from "../../tape/paintRow";
import type { Palette } from "../../tape/palette";
import type { Scene } from "./scene";

const FONT = '600 13px "Atkinson Hyperlegible Next Variable", sans-serif';
const NUMBER_FONT = '12px "Atkinson Hyperlegible Mono Variable", monospace';
const MOST_ARCS = 5;

/** What of a player's helps is drawn. */
export interface Helps {
  readonly meters: boolean;
  readonly memory: boolean;
  readonly arcs: boolean;
}

interface Eye {
  readonly px: number;
  readonly left: number;
  readonly foot: number;
}

/** Where the level is looked at from: as large as fits, the body a third from the left. */
function lookAt(stage: RunnerProgram, x: number, width: number, height: number): Eye {
  const px = Math.floor(Math.max(14, Math.min(stage.tilePx, height / (stage.level.height + 0.5))));
  const most = stage.level.width * px - width;
  const left = Math.max(0, Math.min(Math.max(0, most), x * px - width * 0.4));
  return { px, left: Math.round(most < 0 ? most / 2 : left), foot: Math.round(height) - 6 };
}

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

/** The frames on which a leap was performed, up to now, the last ones. */
function lastLeaps({ trace, frame, stage }: Scene): number[] {
  const found: number[] = [];
  for (let i = trace.count - 1; i >= 0 && found.length < MOST_ARCS; i--) {
    if (trace.kind[i] !== notes.PERFORMED || trace.frame[i]! > frame) continue;
    const effect = stage.kind === "runner" ? stage.effects[trace.subject[i]!] : undefined;
    if (effect && "leap" in effect) found.push(trace.frame[i]!);
  }
  return found;
}

/** The arcs of the last leaps, each with its height in tiles at its top. */
function paintArcs(ctx: CanvasRenderingContext2D, palette: Palette, scene: Scene, eye: Eye): void {
  const frames = Math.floor(scene.track.length / 2);
  const labelled: number[] = [];
  lastLeaps(scene).forEach((from, k) => {
    const floor = scene.track[Math.max(0, from - 1) * 2 + 1] ?? 0;
    let top = floor;
    let topX = 0;
    ctx.strokeStyle = palette.dew;
    ctx.globalAlpha = k === 0 ? 1 : 0.55;
    ctx.lineWidth = k === 0 ? 2 : 1.25;
    ctx.setLineDash(k === 0 ? [] : [3, 4]);
    ctx.beginPath();
    for (let f = Math.max(0, from - 1); f < Math.min(frames, scene.frame + 1, from + 120); f++) {
      const x = scene.track[f * 2]!;
      const y = scene.track[f * 2 + 1]!;
      if (y > top) {
        top = y;
        topX = x;
      }
      const isDown = f > from + 2 && y === scene.track[(f - 1) * 2 + 1];
      if (f === Math.max(0, from - 1)) ctx.moveTo(x * eye.px - eye.left, eye.foot - y * eye.px);
      else ctx.lineTo(x * eye.px - eye.left, eye.foot - y * eye.px);
      if (isDown) break;
    }
    ctx.stroke();
    ctx.setLineDash([]);
    ctx.globalAlpha = 1;
    const labelX = topX * eye.px - eye.left;
    if (top - floor < 0.2 || labelled.some(other => Math.abs(other - labelX) < 70)) return;
    labelled.push(labelX);
    ctx.font = NUMBER_FONT;
    ctx.fillStyle = palette.ink;
    ctx.textAlign = "center";
    ctx.fillText(`${(top - floor).toFixed(1)} tiles`, topX * eye.px - eye.left, eye.foot - top * eye.px - 8);
    ctx.textAlign = "left";
  });
}

/** Rings and bars over the body for what is being held or charged, with the names of the rules. */
function paintMeters(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Scene,
  x: number,
  y: number,
): void {
  const { state, program, kit } = scene;
  if (!state) return;
  let at = 0;
  program.patterns.forEach((pattern, i) => {
    if ((pattern.kind !== "hold" && pattern.kind !== "charge") || pattern.isOff) return;
    const meter = readMeter(program, state, i);
    if (meter.phase !== FORMING && meter.phase !== SUSTAINED) return;
    const top = y - 34 - at * 26;
    at++;
    ctx.fillStyle = palette.sand;
    ctx.fillRect(x - 40, top, 80, 9);
    ctx.fillStyle = palette.moss;
    ctx.fillRect(x - 40, top, 80 * Math.min(1, meter.ratio), 9);
    if (pattern.kind === "charge") {
      ctx.fillStyle = palette.ink;
      for (const level of pattern.levels) {
        const share = (level.atTicks - pattern.fromTicks) / (pattern.fullTicks - pattern.fromTicks);
        ctx.fillRect(x - 40 + 80 * share - 1, top - 2, 2, 13);
      }
    }
    ctx.font = FONT;
    ctx.fillStyle = palette.ink;
    ctx.textAlign = "center";
    ctx.fillText(kit.patterns[i]?.name ?? "", x, top - 5);
    ctx.textAlign = "left";
  });
}

/** A press that is remembered, as a dot over the head; the edge that is still forgiven, hatched under the feet. */
function paintMemory(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Scene,
  x: number,
  y: number,
): void {
  const { trace, frame } = scene;
  let pending = 0;
  const performed = new Set<string>();
  for (let i = trace.count - 1; i >= 0 && trace.frame[i]! > frame - 60; i--) {
    const kind = trace.kind[i];
    const key = `${trace.subject[i]} `;
    if (trace.frame[i]! <= frame && (kind === notes.PERFORMED || kind === notes.LOST))
      performed.add(key + trace.payload[trace.at[i]!]!);
    if (kind === notes.REQUEST && trace.frame[i]! <= frame && !performed.has(key + trace.frame[i]!))
      pending++;
  }
  if (pending === 0) return;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 2;
  ctx.setLineDash([2, 3]);
  ctx.beginPath();
  ctx.arc(x, y - 12, 7, 0, Math.PI * 2);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.font = FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText("remembered", x + 12, y - 8);
}

/** Is the ground that was left still forgiven? Only where no leap spent it. */
function isForgiven({ trace, program, stage, frame }: Scene): boolean {
  if (stage.kind !== "runner" || stage.gates.footing < 0) return false;
  const coyote = Math.max(
    0,
    ...program.moves.flatMap(move =>
      move.needs.filter(need => need.gate === stage.gates.footing).map(need => need.coyoteTicks / 100),
    ),
  );
  for (let i = trace.count - 1; i >= 0 && trace.frame[i]! > frame - coyote - 4; i--) {
    if (trace.frame[i]! > frame) continue;
    if (
      trace.kind[i] === notes.PERFORMED &&
      program.moves[trace.subject[i]!]!.spends.includes(stage.gates.footing)
    )
      return false;
    if (trace.kind[i] === notes.GATE && trace.subject[i] === stage.gates.footing)
      return trace.payload[trace.at[i]!] === 0 && frame - trace.frame[i]! < coyote;
  }
  return false;
}

/** The edge that still counts: hatched ground under the feet, though there is none. */
function paintForgiven(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  y: number,
  px: number,
): void {
  hatch(ctx, x - px * 0.7, y, px * 1.4, 9, palette.lichen);
  ctx.font = FONT;
  ctx.fillStyle = palette.ink;
  ctx.fillText("still forgiven", x + px * 0.8, y + 8);
}

/** Draws the runner's level and body. */
export function paintRunner(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  scene: Scene,
  width: number,
  height: number,
  helps: Helps,
): void {
  if (scene.stage.kind !== "runner") return;
  const { stage, track, frame, state } = scene;
  const at = Math.min(frame, Math.floor(track.length / 2) - 1) * 2;
  const x = at >= 0 ? track[at]! : stage.level.startX;
  const y = at >= 0 ? track[at + 1]! : stage.level.startY;
  const eye = lookAt(stage, x, width, height);
  paintLevel(ctx, palette, stage, eye);
  if (helps.arcs) paintArcs(ctx, palette, scene, eye);
  const facing = at >= 2 && track[at - 2]! > x + 1e-4 ? -1 : 1;
  const bodyX = x * eye.px - eye.left;
  const bodyY = eye.foot - y * eye.px;
  if (scene.other && scene.other.track.length > at + 1 && at >= 0) {
    const otherX = scene.other.track[at]! * eye.px - eye.left;
    const otherY = eye.foot - scene.other.track[at + 1]! * eye.px;
    paintRinger(ctx, palette, otherX, otherY, eye.px, facing, true);
    ctx.font = FONT;
    ctx.fillStyle = palette.dew;
    ctx.fillText(scene.other.name, otherX + 12, otherY - BODY_HEIGHT * eye.px - 6);
  }
  paintRinger(ctx, palette, bodyX, bodyY, eye.px, facing, false);
  if (helps.meters && state) paintMeters(ctx, palette, scene, bodyX, bodyY - BODY_HEIGHT * eye.px);
  if (helps.memory && isForgiven(scene)) paintForgiven(ctx, palette, bodyX, bodyY, eye.px);
  if (helps.memory) paintMemory(ctx, palette, scene, bodyX, bodyY - BODY_HEIGHT * eye.px);
}
