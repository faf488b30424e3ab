import type { Ref } from "react";
import type { Share } from "#core";
import { cutLetters } from "#core";
import type { HandsColumn } from "../../document/studySettings";
import type { ShareRow } from "../model/shareRows";
import { percent } from "./ShareBar";

const NAME_PX = 210;
const COLUMN_PX = 450;
const BAR_PX = 120;
const ROW_PX = 24;
const HEAD_PX = 26;

/** A table of shares as SVG: bars with whiskers for the 95 % interval, and the figures beside them. */
export function SharesDrawing({
  columns,
  rows,
  ref,
}: {
  columns: readonly HandsColumn[];
  rows: readonly ShareRow[];
  ref: Ref<SVGSVGElement>;
}) {
  const width = NAME_PX + columns.length * COLUMN_PX;
  const height = HEAD_PX + rows.length * ROW_PX;
  return (
    <svg ref={ref} viewBox={`0 0 ${width} ${height}`} width={width} height={height}>
      {columns.map(({ group, hand }, k) => (
        <text key={k} x={NAME_PX + k * COLUMN_PX} y="14" className="fill-ink text-sm font-semibold">
          {cutLetters([group, hand].filter(Boolean).join(", "), 38)}
        </text>
      ))}
      {rows.map(({ key, name, shares }, r) => {
        const top = HEAD_PX + r * ROW_PX;
        return (
          <g key={key}>
            <line x1="0" x2={width} y1={top} y2={top} className="stroke-line" />
            <text x="0" y={top + 16} className="fill-ink text-sm">
              {cutLetters(name, 26)}
            </text>
            {shares.map(
              (share, k) => share && <Bar key={k} share={share} x={NAME_PX + k * COLUMN_PX} y={top + 6} />,
            )}
          </g>
        );
      })}
    </svg>
  );
}

function Bar({ share, x, y }: { share: Share; x: number; y: number }) {
  const { low, high, hits, n } = share;
  const [from, to] = [x + low * BAR_PX, x + high * BAR_PX];
  return (
    <>
      <rect x={x} y={y + 3} width={BAR_PX} height="6" className="fill-sand" />
      <rect x={x} y={y + 3} width={share.share * BAR_PX} height="6" className="fill-fern" />
      <path
        d={`M${from} ${y + 6}H${to}M${from} ${y + 2}v8M${to} ${y + 2}v8`}
        strokeWidth="1.5"
        className="stroke-ink"
      />
      <text x={x + BAR_PX + 8} y={y + 10} className="fill-ink font-mono text-xs">
        {`${percent(share.share)}, ${percent(low)} to ${percent(high)}, ${hits} of ${n}`}
      </text>
    </>
  );
}
