import type { Palette } from "../../ui/palette";

/** The posture of the opponent. Angles in radians from hanging down, positive towards the fighter. */
export interface JackPosture {
  readonly x: number;
  readonly floor: number;
  readonly size: number;
  readonly lean: number;
  readonly arm: number;
  /** Whether it holds its arm in front of itself, as a guard. */
  readonly isGuarding: boolean;
  readonly isReeling: boolean;
  /** The rotation of its wheels. */
  readonly turn: number;
}

function paintWheel(
  ctx: CanvasRenderingContext2D,
  x: number,
  y: number,
  radius: number,
  turn: number,
  teeth: number,
): void {
  ctx.beginPath();
  for (let k = 0; k < teeth * 2; k++) {
    const angle = turn + (k * Math.PI) / teeth;
    const at = k % 2 === 0 ? radius : radius * 0.78;
    ctx.lineTo(x + Math.cos(angle) * at, y + Math.sin(angle) * at);
  }
  ctx.closePath();
  ctx.moveTo(x + radius * 0.3, y);
  ctx.arc(x, y, radius * 0.3, 0, Math.PI * 2, true);
  ctx.fill("evenodd");
}

/** Paints the stand and the barrel with its bare wheels. */
function paintBarrel(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  size: number,
  half: number,
  turn: number,
): void {
  ctx.fillStyle = palette.bark;
  ctx.fillRect(-half * 1.25, -size * 0.1, half * 2.5, size * 0.1);
  ctx.fillStyle = palette.soft;
  ctx.fillRect(-half * 0.35, -size * 0.24, half * 0.7, size * 0.16);
  ctx.beginPath();
  ctx.roundRect(-half, -size * 0.66, half * 2, size * 0.44, half * 0.4);
  ctx.fill();
  ctx.fillStyle = palette.leaf;
  ctx.globalAlpha = 0.9;
  ctx.beginPath();
  ctx.roundRect(-half * 0.74, -size * 0.6, half * 1.48, size * 0.32, half * 0.3);
  ctx.fill();
  ctx.globalAlpha = 1;
  ctx.fillStyle = palette.bark;
  paintWheel(ctx, -half * 0.2, -size * 0.48, half * 0.5, turn, 9);
  ctx.fillStyle = palette.lichen;
  paintWheel(ctx, half * 0.34, -size * 0.35, half * 0.34, -turn * 1.5, 7);
}

/** Paints the winding key in its back. */
function paintKey(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  size: number,
  half: number,
  turn: number,
): void {
  ctx.fillStyle = palette.bark;
  ctx.save();
  ctx.translate(half * 1.2, -size * 0.48);
  ctx.scale(1, Math.cos(turn));
  ctx.fillRect(-half * 0.2, -size * 0.02, half * 0.4, size * 0.04);
  ctx.beginPath();
  ctx.ellipse(half * 0.4, -size * 0.04, half * 0.22, size * 0.05, 0, 0, Math.PI * 2);
  ctx.ellipse(half * 0.4, size * 0.04, half * 0.22, size * 0.05, 0, 0, Math.PI * 2);
  ctx.fill();
  ctx.restore();
}

/** Paints the head: a box with a slit, on a spring. */
function paintHead(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  size: number,
  half: number,
  isReeling: boolean,
  turn: number,
): void {
  const headY = -size * 0.9 + (isReeling ? Math.sin(turn * 9) * size * 0.02 : 0);
  ctx.strokeStyle = palette.bark;
  ctx.lineWidth = size * 0.025;
  ctx.beginPath();
  for (let k = 0; k <= 4; k++)
    ctx.lineTo((k % 2 === 0 ? -1 : 1) * half * 0.2, -size * 0.66 - k * size * 0.015);
  ctx.stroke();
  ctx.fillStyle = palette.soft;
  ctx.beginPath();
  ctx.roundRect(-half * 0.62, headY, half * 1.24, size * 0.2, half * 0.2);
  ctx.fill();
  ctx.fillStyle = isReeling ? palette.foxglove : palette.lichen;
  ctx.fillRect(-half * 0.42, headY + size * 0.07, half * 0.56, size * 0.035);
  ctx.fillStyle = palette.bark;
  ctx.fillRect(-half * 0.74, headY - size * 0.03, half * 1.48, size * 0.045);
}

/** Paints the striking arm, always to the left, towards the fighter, and its hammer. */
function paintArm(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  size: number,
  half: number,
  arm: number,
  isGuarding: boolean,
): void {
  const shoulderX = -half * 0.7;
  const shoulderY = -size * 0.56;
  const handX = shoulderX - Math.sin(arm) * size * 0.4;
  const handY = shoulderY + Math.cos(arm) * size * 0.4;
  ctx.strokeStyle = palette.ink;
  ctx.lineCap = "round";
  ctx.lineWidth = size * 0.055;
  ctx.beginPath();
  ctx.moveTo(shoulderX, shoulderY);
  ctx.lineTo(handX, handY);
  ctx.stroke();
  ctx.fillStyle = palette.lichen;
  ctx.beginPath();
  ctx.arc(shoulderX, shoulderY, size * 0.045, 0, Math.PI * 2);
  ctx.fill();
  ctx.translate(handX, handY);
  ctx.rotate(arm);
  ctx.fillStyle = palette.bark;
  if (isGuarding) ctx.fillRect(-size * 0.045, -size * 0.24, size * 0.09, size * 0.36);
  else ctx.fillRect(-size * 0.14, -size * 0.02, size * 0.28, size * 0.14);
}

/** Paints the mechanical opponent: a barrel with bare wheels, a winding key, a box for a head, a hammer. */
export function paintJack(ctx: CanvasRenderingContext2D, palette: Palette, jack: JackPosture): void {
  const { x, floor, size, lean, arm, isGuarding, isReeling, turn } = jack;
  const half = size * 0.2;
  ctx.save();
  ctx.translate(x, floor);
  ctx.rotate(lean * 0.28);
  paintBarrel(ctx, palette, size, half, turn);
  paintKey(ctx, palette, size, half, turn);
  paintHead(ctx, palette, size, half, isReeling, turn);
  paintArm(ctx, palette, size, half, arm, isGuarding);
  ctx.restore();
}
