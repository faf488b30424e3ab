/** Paints slanted lines over a rectangle, for planned or dead time. */
export function paintHatch(
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
