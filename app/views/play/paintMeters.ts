import { FORMING, readMeter, SUSTAINED } from "#core";
import type { Palette } from "../../ui/palette";
import type { Scene } from "./scene";
import { STAGE_FONT } from "./scenery";

const BAR_PX = 9;
const PITCH_PX = 30;

/**
 * Bars over a body for what is being held or charged, one above the other from `y` up, each with the name of its rule
 * and of the level it has come to.
 */
export function paintMeters(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { state, program, kit }: Scene,
  x: number,
  y: number,
  width: number,
): void {
  if (!state) return;
  const left = x - width / 2;
  let top = y - BAR_PX;
  program.patterns.forEach((pattern, i) => {
    if ((pattern.kind !== "hold" && pattern.kind !== "charge") || pattern.isOff) return;
    const meter = readMeter(program, state, i);
    if (meter.phase !== FORMING && meter.phase !== SUSTAINED) return;
    ctx.fillStyle = palette.sand;
    ctx.fillRect(left, top, width, BAR_PX);
    ctx.fillStyle = palette.moss;
    ctx.fillRect(left, top, width * Math.min(1, meter.ratio), BAR_PX);
    ctx.fillStyle = palette.ink;
    let reached = "";
    if (pattern.kind === "charge") {
      for (const level of pattern.levels) {
        const share = (level.atTicks - pattern.fromTicks) / (pattern.fullTicks - pattern.fromTicks);
        ctx.fillRect(left + width * share - 1, top - 2, 2, BAR_PX + 4);
      }
      reached = pattern.levels[meter.level - 1]?.name ?? "";
    }
    ctx.font = STAGE_FONT;
    ctx.textAlign = "center";
    ctx.fillText(`${kit.patterns[i]?.name ?? ""} ${reached}`.trim(), x, top - 5);
    ctx.textAlign = "left";
    top -= PITCH_PX;
  });
}
