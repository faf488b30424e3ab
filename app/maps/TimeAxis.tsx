import { formatMs } from "#core";
import { axisStep, type MapScale } from "./scale";

/**
 * The axis of a map: frames with their milliseconds. `zero` is the frame labelled 0; both sides carry their
 * sign.
 */
export function TimeAxis({
  scale,
  y,
  rateHz,
  isSigned = false,
}: {
  scale: MapScale;
  y: number;
  rateHz: number;
  isSigned?: boolean;
}) {
  const step = axisStep(scale.pxPerFrame);
  const first = Math.ceil(scale.from / step) * step;
  /** A label that would extend beyond the right end is omitted. */
  const fits = (frame: number) => scale.x(frame) - scale.x(scale.from) + 74 <= scale.widthPx;
  const frames = Array.from(
    { length: Math.floor((scale.to - first) / step) + 1 },
    (_, k) => first + k * step,
  );
  const sign = (frame: number) => (isSigned && frame > 0 ? "+" : frame < 0 ? "−" : "");
  return (
    <g aria-hidden>
      {frames.map(frame => (
        <g key={frame}>
          <rect x={scale.x(frame)} y={y} width="1" height="5" className="fill-soft" />
          {fits(frame) && (
            <>
              <text x={scale.x(frame) + 3} y={y + 15} className="fill-ink font-mono text-xs">
                {sign(frame)}
                {Math.abs(frame)}f
              </text>
              <text x={scale.x(frame) + 3} y={y + 29} className="fill-soft font-mono text-xs">
                {formatMs(Math.abs(frame), rateHz)}
              </text>
            </>
          )}
        </g>
      ))}
    </g>
  );
}
