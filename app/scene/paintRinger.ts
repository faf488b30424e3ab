import type { Palette } from "../ui/palette";

/** The heights of the hip and of the shoulder, as shares of the whole. */
const HIP = 0.3;
const SHOULDER = 0.66;

/**
 * The posture of the bell-ringer. Angles in radians from hanging down, positive forward; shares from −1 to 1.
 */
export interface Posture {
  readonly x: number;
  /** The position of the feet. */
  readonly y: number;
  /** The height from feet to hood, in px. */
  readonly height: number;
  readonly facing: 1 | -1;
  /** The forward lean of the body. */
  readonly lean: number;
  /** The phase of the stride; undefined if the legs hang, as in the air. */
  readonly stride: number | undefined;
  /** The angles of both arms. */
  readonly arms: readonly [number, number];
  /** How far the scarf is blown back and lifted. */
  readonly wind: number;
  readonly rise: number;
}

/** Paints a limb of two parts that bends in the facing direction. */
function limb(
  ctx: CanvasRenderingContext2D,
  x: number,
  y: number,
  angle: number,
  length: number,
  bend: number,
): [number, number] {
  const elbowX = x + Math.sin(angle) * length * 0.5;
  const elbowY = y + Math.cos(angle) * length * 0.5;
  const handX = elbowX + Math.sin(angle + bend) * length * 0.5;
  const handY = elbowY + Math.cos(angle + bend) * length * 0.5;
  ctx.moveTo(x, y);
  ctx.quadraticCurveTo(elbowX, elbowY, handX, handY);
  return [handX, handY];
}

/** Traces the coat from its hem, at the hip, to the shoulder. */
function traceCoat(ctx: CanvasRenderingContext2D, h: number, leanX: number): void {
  const hip = -h * HIP;
  const shoulder = -h * SHOULDER;
  ctx.beginPath();
  ctx.moveTo(-h * 0.17, hip + h * 0.1);
  ctx.quadraticCurveTo(-h * 0.16 + leanX * 0.4, hip - h * 0.1, leanX - h * 0.11, shoulder);
  ctx.lineTo(leanX + h * 0.11, shoulder);
  ctx.quadraticCurveTo(h * 0.13 + leanX * 0.4, hip - h * 0.1, h * 0.17, hip + h * 0.1);
  ctx.closePath();
}

/** Paints an outline: coat, head, legs. */
function paintGhost(ctx: CanvasRenderingContext2D, palette: Palette, h: number, leanX: number): void {
  const hip = -h * HIP;
  ctx.strokeStyle = palette.dew;
  ctx.lineWidth = 2;
  traceCoat(ctx, h, leanX);
  ctx.stroke();
  ctx.beginPath();
  ctx.arc(leanX, -h * SHOULDER - h * 0.14, h * 0.17, 0, Math.PI * 2);
  ctx.moveTo(-h * 0.08, hip + h * 0.1);
  ctx.lineTo(-h * 0.1, 0);
  ctx.moveTo(h * 0.08, hip + h * 0.1);
  ctx.lineTo(h * 0.1, 0);
  ctx.stroke();
}

function paintLegs(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  h: number,
  stride: number | undefined,
): void {
  const swing = stride === undefined ? 0 : Math.sin(stride);
  const hang = stride === undefined;
  ctx.strokeStyle = palette.bark;
  ctx.lineWidth = h * 0.095;
  for (let leg = 0; leg < 2; leg++) {
    const side = leg === 0 ? 1 : -1;
    const angle = hang ? (leg === 0 ? -0.35 : 0.5) : swing * 0.75 * side;
    ctx.beginPath();
    limb(ctx, 0, -h * HIP + h * 0.04, angle, h * 0.3, hang ? -0.8 : Math.max(0, -angle) * -1.1);
    ctx.stroke();
  }
}

function paintScarf(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  h: number,
  leanX: number,
  wind: number,
  rise: number,
): void {
  const shoulder = -h * SHOULDER;
  ctx.strokeStyle = palette.lichen;
  ctx.lineWidth = h * 0.07;
  ctx.beginPath();
  ctx.moveTo(leanX, shoulder - h * 0.01);
  ctx.quadraticCurveTo(
    leanX - h * 0.16 - wind * h * 0.1,
    shoulder + h * 0.02 - rise * h * 0.1,
    leanX - h * (0.2 + wind * 0.24),
    shoulder + h * (0.12 - rise * 0.26),
  );
  ctx.stroke();
}

/** Paints the pointed hood, the face in it, and its eye. */
function paintHood(ctx: CanvasRenderingContext2D, palette: Palette, h: number, leanX: number): void {
  const shoulder = -h * SHOULDER;
  ctx.fillStyle = palette.moss;
  ctx.beginPath();
  ctx.arc(leanX, shoulder - h * 0.14, h * 0.175, 0, Math.PI * 2);
  ctx.moveTo(leanX - h * 0.1, shoulder - h * 0.26);
  ctx.lineTo(leanX - h * 0.2, shoulder - h * 0.3);
  ctx.lineTo(leanX - h * 0.15, shoulder - h * 0.16);
  ctx.fill();
  ctx.fillStyle = palette.paper;
  ctx.beginPath();
  ctx.ellipse(leanX + h * 0.075, shoulder - h * 0.13, h * 0.08, h * 0.095, 0, 0, Math.PI * 2);
  ctx.fill();
  ctx.fillStyle = palette.ink;
  ctx.beginPath();
  ctx.arc(leanX + h * 0.1, shoulder - h * 0.145, h * 0.02, 0, Math.PI * 2);
  ctx.fill();
}

/** Paints an arm and returns the position of its hand. */
function paintArm(
  ctx: CanvasRenderingContext2D,
  h: number,
  leanX: number,
  angle: number,
  colour: string,
): readonly [number, number] {
  ctx.strokeStyle = colour;
  ctx.lineWidth = h * 0.085;
  ctx.beginPath();
  const hand = limb(ctx, leanX, -h * SHOULDER + h * 0.07, angle, h * 0.34, 0.5);
  ctx.stroke();
  return hand;
}

/**
 * Paints the bell-ringer: boots, a coat, a hood with a face, a scarf. Drawn around its feet facing right,
 * then mirrored; only an outline for a ghost. Returns the position of the leading hand.
 */
export function paintRinger(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  posture: Posture,
  isGhost = false,
): { x: number; y: number } {
  const { x, y, height: h, facing, lean, stride, arms, wind, rise } = posture;
  const leanX = lean * h * 0.22;
  ctx.save();
  ctx.translate(x, y);
  ctx.scale(facing, 1);
  ctx.lineCap = "round";
  if (isGhost) {
    paintGhost(ctx, palette, h, leanX);
    ctx.restore();
    return { x, y: y - h * SHOULDER };
  }
  paintArm(ctx, h, leanX, arms[1], palette.soft);
  paintLegs(ctx, palette, h, stride);
  paintScarf(ctx, palette, h, leanX, wind, rise);
  ctx.fillStyle = palette.ink;
  traceCoat(ctx, h, leanX);
  ctx.fill();
  paintHood(ctx, palette, h, leanX);
  const hand = paintArm(ctx, h, leanX, arms[0], palette.ink);
  ctx.restore();
  return { x: x + facing * hand[0], y: y + hand[1] };
}
