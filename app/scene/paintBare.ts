import { FIRED, FORMING, LAPSED, readMeter, SUSTAINED, traitsOf } from "#core";
import type { Palette } from "../ui/palette";
import { paintTower } from "./backdrop";
import { meterOf } from "./paintMeters";
import type { Shown } from "./scene";
import { STAGE_FONT, STAGE_NUMBER_FONT } from "./scenery";

const ROW_PX = 46;
const BAR_PX = 14;
const TOP_PX = 150;

/**
 * Paints a kit without a stage: a meter for each rule that grows with input, in as many columns as fit.
 * Disabled rules are omitted.
 */
export function paintBare(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { kit, program, state }: Shown,
  width: number,
  height: number,
): void {
  paintTower(ctx, palette, width, height);
  if (!state) return;
  const metered = program.patterns.flatMap((pattern, i) =>
    traitsOf(pattern.kind).meter !== "none" && !pattern.isOff ? [i] : [],
  );
  const rows = Math.max(1, Math.floor((height - TOP_PX - 20) / ROW_PX));
  const columns = Math.max(1, Math.ceil(metered.length / rows));
  const wide = Math.min(340, (width - 40) / columns - 28);
  const left = (width - columns * (wide + 28) + 28) / 2;
  if (metered.length === 0) return;
  ctx.fillStyle = palette.leaf;
  ctx.strokeStyle = palette.line;
  ctx.beginPath();
  const tall = Math.min(rows, metered.length) * ROW_PX;
  ctx.roundRect(left - 20, TOP_PX - 34, columns * (wide + 28) + 12, tall + 24, 14);
  ctx.fill();
  ctx.stroke();
  metered.forEach((i, k) => {
    const x = left + Math.floor(k / rows) * (wide + 28);
    const y = TOP_PX + (k % rows) * ROW_PX;
    const pattern = program.patterns[i]!;
    const meter = readMeter(program, state, i);
    const isHot = meter.phase === FIRED || meter.phase === SUSTAINED;
    const { filled, ticks } = meterOf(pattern, meter);
    ctx.font = STAGE_FONT;
    ctx.fillStyle = meter.phase === LAPSED ? palette.foxglove : palette.ink;
    ctx.fillText(kit.patterns[i]?.name ?? "", x, y - 5, wide - 60);
    ctx.fillStyle = palette.sand;
    ctx.fillRect(x, y, wide, BAR_PX);
    ctx.fillStyle = palette.moss;
    ctx.fillRect(
      x,
      y,
      wide * (isHot && !traitsOf(pattern.kind).growth?.(pattern).output ? 1 : filled),
      BAR_PX,
    );
    ctx.fillStyle = palette.ink;
    for (const share of ticks) ctx.fillRect(x + wide * share - 1, y - 2, 2, BAR_PX + 4);
    if (meter.phase !== FORMING && meter.phase !== SUSTAINED) return;
    ctx.font = STAGE_NUMBER_FONT;
    ctx.textAlign = "right";
    ctx.fillText(`${Math.floor(meter.ageFrames)}f`, x + wide, y - 5);
    ctx.textAlign = "left";
  });
}
