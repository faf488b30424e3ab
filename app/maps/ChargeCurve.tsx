import {
  evaluateEasing,
  TICKS,
  traitsOf,
  type Easing,
  type Growth,
  type PatternProgram,
  type Program,
} from "#core";
import type { MapScale } from "./scale";

/** The height of the band in which the curve is drawn. */
export const CURVE_BAND = 74;
const CURVE_TOP = 6;
const CURVE_HEIGHT = 46;

/** Returns the growth of a pattern that follows a curve; undefined for any other. */
export function curvedGrowth(
  pattern: PatternProgram | undefined,
): (Growth & { readonly easing: Easing }) | undefined {
  const growth = pattern && traitsOf(pattern.kind).growth?.(pattern);
  return growth?.easing ? { ...growth, easing: growth.easing } : undefined;
}

/**
 * The growth of a charge over the strip: its curve, the straight line for comparison, and its levels as
 * steps.
 */
export function ChargeCurve({ program, index, scale }: { program: Program; index: number; scale: MapScale }) {
  const growth = curvedGrowth(program.patterns[index]);
  if (!growth) return null;
  const from = growth.fromTicks / TICKS;
  const full = growth.fullTicks / TICKS;
  const y = (value: number) => CURVE_TOP + CURVE_HEIGHT * (1 - Math.max(-0.1, Math.min(1.1, value)));
  const points = Array.from({ length: 49 }, (_, k) => {
    const ratio = k / 48;
    return `${scale.x(from + (full - from) * ratio).toFixed(1)},${y(evaluateEasing(growth.easing, ratio)).toFixed(1)}`;
  });
  return (
    <g aria-hidden>
      <line
        x1={scale.x(from)}
        y1={y(0)}
        x2={scale.x(full)}
        y2={y(1)}
        className="stroke-line"
        strokeDasharray="3 4"
      />
      <polyline
        points={`${points.join(" ")} ${scale.x(scale.to + 1)},${y(1)}`}
        fill="none"
        strokeWidth="2.5"
        className="stroke-moss"
      />
      {growth.levels.map(level => (
        <g key={level.name}>
          <line
            x1={scale.x(level.atTicks / TICKS)}
            x2={scale.x(level.atTicks / TICKS)}
            y1={CURVE_TOP}
            y2={CURVE_BAND}
            className="stroke-lichen-ink"
            strokeDasharray="2 3"
          />
          <text x={scale.x(level.atTicks / TICKS) + 4} y={CURVE_TOP + 8} className="fill-ink text-xs">
            {level.name}
          </text>
        </g>
      ))}
    </g>
  );
}
