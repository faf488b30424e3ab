import type { Ref } from "react";
import { nameOf, cutLetters, type Kit } from "#core";
import { axesOf, cellOf, type OverlapGrid, type PairLook } from "./model/overlapGrid";
import { HiddenPicture } from "./HiddenPicture";

const LABEL_PX = 190;
const HEAD_PX = 110;
const CELL_PX = 30;
const LEGEND = [
  "◆ one press always sets off both   ◇ sometimes   · none found",
  "row: comes first; column: comes then",
];

/** The buttons that save a grid of overlaps as a picture. */
export function OverlapDrawing({ kit, grid }: { kit: Kit; grid: OverlapGrid }) {
  return (
    <HiddenPicture file={`overlaps-${grid.list}`} name={`Overlaps of ${grid.list}`} lines={LEGEND}>
      {ref => <Drawing kit={kit} grid={grid} ref={ref} />}
    </HiddenPicture>
  );
}

/** A grid of overlaps as SVG: rows come first, columns then. */
function Drawing({ kit, grid, ref }: { kit: Kit; grid: OverlapGrid; ref: Ref<SVGSVGElement> }) {
  const { list } = grid;
  const { rows, columns } = axesOf(grid);
  const name = (index: number) => nameOf(kit, list, kit[list]![index]!.id);
  const right = LABEL_PX + columns.length * CELL_PX;
  const width = right + HEAD_PX;
  const height = HEAD_PX + rows.length * CELL_PX;
  return (
    <svg ref={ref} viewBox={`0 0 ${width} ${height}`} width={width} height={height}>
      {columns.map((rule, k) => {
        const x = LABEL_PX + k * CELL_PX + CELL_PX / 2;
        const y = HEAD_PX - 8;
        return (
          <text key={rule} x={x} y={y} transform={`rotate(-42 ${x} ${y})`} className="fill-ink text-xs">
            {cutLetters(name(rule), 18)}
          </text>
        );
      })}
      {rows.map((first, k) => {
        const top = HEAD_PX + k * CELL_PX;
        return (
          <g key={first}>
            <text x="0" y={top + 20} className="fill-ink text-sm">
              {cutLetters(name(first), 24)}
            </text>
            <line x1="0" x2={right} y1={top} y2={top} className="stroke-line" />
            {columns.map((second, n) => {
              const look = cellOf(grid, first, second)?.look;
              const x = LABEL_PX + n * CELL_PX + CELL_PX / 2;
              return look && <Mark key={second} look={look} x={x} y={top + CELL_PX / 2} />;
            })}
          </g>
        );
      })}
    </svg>
  );
}

/** The mark of a pair: a full lozenge for always, a hollow one for sometimes, a point for none found. */
function Mark({ look, x, y }: { look: PairLook; x: number; y: number }) {
  if (look === "none") return <circle cx={x} cy={y} r="2" className="fill-soft" />;
  return (
    <path
      d={`M${x} ${y - 7}l7 7l-7 7l-7 -7z`}
      strokeWidth="1.5"
      className={`stroke-foxglove ${look === "always" ? "fill-foxglove" : "fill-leaf"}`}
    />
  );
}
