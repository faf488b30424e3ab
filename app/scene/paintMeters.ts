import { FORMING, readMeter, SUSTAINED, TICKS, type Meter, traitsOf, type PatternProgram } from "#core";
import type { Palette } from "../ui/palette";
import type { Shown } from "./scene";
import { STAGE_FONT } from "./scenery";

const BAR_PX = 9;
const PITCH_PX = 30;

/**
 * Returns the filled share of a bar and the positions of its levels, 0 to 1. A level beyond full extends the
 * bar.
 */
export function meterOf(
  pattern: PatternProgram,
  { ratio, ageFrames }: Pick<Meter, "ratio" | "ageFrames">,
): { readonly filled: number; readonly ticks: readonly number[] } {
  const growth = traitsOf(pattern.kind).growth?.(pattern);
  if (!growth?.output) return { filled: Math.min(1, ratio), ticks: [] };
  const { fromTicks, fullTicks, levels } = growth;
  const ends = Math.max(fullTicks, ...levels.map(level => level.atTicks));
  const share = (ticks: number) => Math.max(0, Math.min(1, (ticks - fromTicks) / (ends - fromTicks)));
  return { filled: share(ageFrames * TICKS), ticks: levels.map(level => share(level.atTicks)) };
}

/**
 * Paints bars over a body for held and charged rules, stacked upwards from `y`, each with the name of its
 * rule and its level.
 */
export function paintMeters(
  ctx: CanvasRenderingContext2D,
  palette: Palette,
  { state, program, kit }: Shown,
  x: number,
  y: number,
  width: number,
): void {
  if (!state) return;
  const left = x - width / 2;
  let top = y - BAR_PX;
  program.patterns.forEach((pattern, i) => {
    const { meter: place, growth } = traitsOf(pattern.kind);
    if (place !== "body" || pattern.isOff) return;
    const meter = readMeter(program, state, i);
    if (meter.phase !== FORMING && meter.phase !== SUSTAINED) return;
    ctx.fillStyle = palette.sand;
    ctx.fillRect(left, top, width, BAR_PX);
    ctx.fillStyle = palette.moss;
    const { filled, ticks } = meterOf(pattern, meter);
    ctx.fillRect(left, top, width * filled, BAR_PX);
    ctx.fillStyle = palette.ink;
    for (const share of ticks) ctx.fillRect(left + width * share - 1, top - 2, 2, BAR_PX + 4);
    const reached = growth?.(pattern).levels[meter.level - 1]?.name ?? "";
    ctx.font = STAGE_FONT;
    ctx.textAlign = "center";
    ctx.fillText(`${kit.patterns[i]?.name ?? ""} ${reached}`.trim(), x, top - 5);
    ctx.textAlign = "left";
    top -= PITCH_PX;
  });
}
