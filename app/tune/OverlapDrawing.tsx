import { useRef } from "react";
import { nameOf, type Kit } from "#core";
import { cutLetters } from "../ui/fitText";
import { cellOf, type OverlapGrid } from "./model/overlapGrid";
import { SavePicture } from "./SavePicture";

const LABEL_PX = 190;
const HEAD_PX = 110;
const CELL_PX = 30;
const LEGEND = [
  "◆ one press always sets off both   ◇ sometimes   · none found",
  "row: comes first; column: comes then",
];

/** A grid of overlaps as a drawing out of sight, and the buttons that save it as a picture. */
export function OverlapDrawing({ kit, grid }: { kit: Kit; grid: OverlapGrid }) {
  const drawing = useRef<SVGSVGElement>(null);
  const { list, rules } = grid;
  const name = (index: number) => nameOf(kit, list, kit[list]![index]!.id);
  const width = LABEL_PX + rules.length * CELL_PX + HEAD_PX;
  const height = HEAD_PX + rules.length * CELL_PX;
  return (
    <div>
      <div className="fixed top-0 left-[200vw]" aria-hidden inert>
        <svg ref={drawing} viewBox={`0 0 ${width} ${height}`} width={width} height={height}>
          {rules.map((rule, k) => (
            <g key={rule}>
              <text
                x={LABEL_PX + k * CELL_PX + CELL_PX / 2}
                y={HEAD_PX - 8}
                transform={`rotate(-42 ${LABEL_PX + k * CELL_PX + CELL_PX / 2} ${HEAD_PX - 8})`}
                className="fill-ink text-xs"
              >
                {cutLetters(name(rule), 18)}
              </text>
              <text x="0" y={HEAD_PX + k * CELL_PX + 20} className="fill-ink text-sm">
                {cutLetters(name(rule), 24)}
              </text>
              <line
                x1="0"
                x2={LABEL_PX + rules.length * CELL_PX}
                y1={HEAD_PX + k * CELL_PX}
                y2={HEAD_PX + k * CELL_PX}
                className="stroke-line"
              />
              {rules.map((second, n) => {
                const cell = cellOf(grid, rule, second);
                const x = LABEL_PX + n * CELL_PX + CELL_PX / 2;
                const y = HEAD_PX + k * CELL_PX + CELL_PX / 2;
                if (!cell) return null;
                if (cell.look === "none")
                  return <circle key={second} cx={x} cy={y} r="2" className="fill-soft" />;
                return (
                  <path
                    key={second}
                    d={`M${x} ${y - 7}l7 7l-7 7l-7 -7z`}
                    strokeWidth="1.5"
                    className={`stroke-foxglove ${cell.look === "always" ? "fill-foxglove" : "fill-leaf"}`}
                  />
                );
              })}
            </g>
          ))}
        </svg>
      </div>
      <SavePicture drawing={drawing} file={`overlaps-${list}`} name={`Overlaps of ${list}`} lines={LEGEND} />
    </div>
  );
}
