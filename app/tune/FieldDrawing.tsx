import { cutLetters } from "#core";
import type { Ref } from "react";

/** A cell of a field of two numbers. */
export interface FieldCell {
  readonly text: string;
  /** Whether it meets what was asked, and is filled. */
  readonly isFull: boolean;
  readonly outline: "chosen" | "present" | undefined;
}

const SLIMMEST_CELL_PX = 48;
/** A letter of a cell's font, and what its text leaves free on both sides together. */
const LETTER_PX = 7.5;
const CELL_ROOM_PX = 12;
const CELL_HEIGHT_PX = 26;
const HEAD_PX = 44;
const LABEL_PX = 64;

/** A field of two numbers as SVG: the first across, the second down; a field of one number has a single row. */
export function FieldDrawing({
  across,
  down,
  columns,
  rows,
  cellAt,
  ref,
}: {
  /** The names of the numbers. */
  across: string;
  down: string | undefined;
  columns: readonly string[];
  rows: readonly string[];
  /** Returns a cell by its row and column; undefined where nothing was run. */
  cellAt: (row: number, column: number) => FieldCell | undefined;
  ref: Ref<SVGSVGElement>;
}) {
  const cells = rows.map((_, r) => columns.map((_column, c) => cellAt(r, c)));
  const letters = Math.max(0, ...cells.flat().map(cell => cell?.text.length ?? 0));
  const cellPx = Math.max(SLIMMEST_CELL_PX, letters * LETTER_PX + CELL_ROOM_PX);
  const width = Math.max(LABEL_PX + columns.length * cellPx, 420);
  const height = HEAD_PX + rows.length * CELL_HEIGHT_PX;
  return (
    <svg ref={ref} viewBox={`0 0 ${width} ${height}`} width={width} height={height}>
      <text x={LABEL_PX} y="12" className="fill-ink text-sm">
        {cutLetters(`→ ${across}${down === undefined ? "" : `   ↓ ${down}`}`, 60)}
      </text>
      {columns.map((column, c) => (
        <text
          key={column}
          x={LABEL_PX + (c + 0.5) * cellPx}
          y={HEAD_PX - 8}
          textAnchor="middle"
          className="fill-soft font-mono text-xs"
        >
          {column}
        </text>
      ))}
      {rows.map((row, r) => {
        const top = HEAD_PX + r * CELL_HEIGHT_PX;
        return (
          <g key={row}>
            <text x={LABEL_PX - 8} y={top + 17} textAnchor="end" className="fill-soft font-mono text-xs">
              {row}
            </text>
            {columns.map((column, c) => {
              const cell = cells[r]![c];
              return (
                cell && <Cell key={column} cell={cell} x={LABEL_PX + c * cellPx} y={top} width={cellPx} />
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}

function Cell({ cell, x, y, width }: { cell: FieldCell; x: number; y: number; width: number }) {
  const { text, isFull, outline } = cell;
  const look =
    outline === "chosen" ? "stroke-ink" : outline === "present" ? "stroke-moss" : "stroke-transparent";
  return (
    <>
      <rect
        x={x + 2}
        y={y + 2}
        width={width - 4}
        height={CELL_HEIGHT_PX - 4}
        rx="4"
        strokeWidth={outline === "chosen" ? 3 : 2}
        strokeDasharray={outline === "present" ? "4 3" : undefined}
        className={`${isFull ? "fill-fern" : "fill-sand"} ${look}`}
      />
      <text
        x={x + width / 2}
        y={y + 17}
        textAnchor="middle"
        className={`font-mono text-xs ${isFull ? "fill-on-lichen" : "fill-ink"}`}
      >
        {text}
      </text>
    </>
  );
}
