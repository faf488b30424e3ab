import type { Palette } from "../ui/palette";

const WINDOW_APART = 250;
const STONE_ROWS = 5;

/** Traces a tall window with a round top. */
function pathWindow(
  ctx: CanvasRenderingContext2D,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  ctx.moveTo(x - width / 2, y + height);
  ctx.lineTo(x - width / 2, y + width / 2);
  ctx.arc(x, y + width / 2, width / 2, Math.PI, 0);
  ctx.lineTo(x + width / 2, y + height);
  ctx.closePath();
}

/**
 * Paints the inside of a tower in two quiet tones: a stone wall, round-topped windows, and struts below the
 * roof. `shift` is the horizontal scroll in px; the wall moves a third of it.
 */
export function paintTower(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  width: number,
  height: number,
  shift = 0,
): void {
  const far = -shift / 3;
  ctx.save();
  ctx.globalAlpha = 0.55;
  ctx.fillStyle = palette.sand;
  const tall = height * 0.46;
  const first = Math.floor(-far / WINDOW_APART) - 1;
  ctx.beginPath();
  for (let k = first; far + k * WINDOW_APART < width + WINDOW_APART; k++)
    pathWindow(ctx, far + k * WINDOW_APART + 120, height * 0.2, 64, tall);
  ctx.fill();
  ctx.globalAlpha = 0.5;
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (let k = first; far + k * WINDOW_APART < width + WINDOW_APART; k++) {
    const x = far + k * WINDOW_APART + 120;
    ctx.moveTo(x, height * 0.2 + 4);
    ctx.lineTo(x, height * 0.2 + tall);
    ctx.moveTo(x - 32, height * 0.2 + tall * 0.55);
    ctx.lineTo(x + 32, height * 0.2 + tall * 0.55);
    // Stones of the wall between two windows; every second row is offset.
    for (let row = 0; row < STONE_ROWS; row++) {
      const y = height * 0.24 + row * 34;
      const from = x + 70 + (row % 2) * 22;
      ctx.moveTo(from, y);
      ctx.lineTo(from + 46, y);
      ctx.lineTo(from + 46, y + 10);
    }
  }
  ctx.stroke();
  ctx.globalAlpha = 0.8;
  ctx.fillStyle = palette.sand;
  ctx.fillRect(0, 0, width, 12);
  ctx.strokeStyle = palette.sand;
  ctx.lineWidth = 9;
  ctx.beginPath();
  const near = -shift / 2;
  const apart = WINDOW_APART * 1.6;
  for (let k = Math.floor(-near / apart) - 1; near + k * apart < width + apart; k++) {
    const x = near + k * apart;
    ctx.moveTo(x, 12);
    ctx.lineTo(x, height * 0.12);
    ctx.moveTo(x, height * 0.11);
    ctx.lineTo(x - 60, 8);
    ctx.moveTo(x, height * 0.11);
    ctx.lineTo(x + 60, 8);
  }
  ctx.stroke();
  ctx.restore();
}

/** Paints a bell, swung by an angle; `size` is its height. */
export function paintBell(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  x: number,
  y: number,
  size: number,
  swing = 0,
): void {
  ctx.save();
  ctx.translate(x, y);
  ctx.rotate(swing);
  ctx.fillStyle = palette.lichen;
  ctx.beginPath();
  ctx.moveTo(-size * 0.52, size);
  ctx.quadraticCurveTo(-size * 0.34, size * 0.8, -size * 0.32, size * 0.42);
  ctx.quadraticCurveTo(-size * 0.28, size * 0.06, 0, size * 0.04);
  ctx.quadraticCurveTo(size * 0.28, size * 0.06, size * 0.32, size * 0.42);
  ctx.quadraticCurveTo(size * 0.34, size * 0.8, size * 0.52, size);
  ctx.closePath();
  ctx.fill();
  ctx.strokeStyle = palette.bark;
  ctx.lineWidth = Math.max(1, size * 0.05);
  ctx.beginPath();
  ctx.moveTo(-size * 0.44, size * 0.86);
  ctx.lineTo(size * 0.44, size * 0.86);
  ctx.stroke();
  ctx.fillStyle = palette.bark;
  ctx.beginPath();
  ctx.arc(swing * size * -0.6, size * 1.04, size * 0.09, 0, Math.PI * 2);
  ctx.fill();
  ctx.restore();
}
