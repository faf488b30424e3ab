import type { FieldCell } from "./FieldDrawing";

/** A cell of a field that can be chosen. */
export interface ChoosableCell extends FieldCell {
  /** The cell in words, with its numbers. */
  readonly words: string;
  readonly isChosen: boolean;
  readonly isDisabled: boolean;
}

const OUTLINES = {
  chosen: "outline-3 outline-ink",
  present: "outline-2 outline-dashed outline-moss",
} as const;

/** A field of two numbers as a table of buttons: the first number across, the second down. */
export function FieldTable({
  columns,
  rows,
  cellAt,
  onChoose,
  testId,
}: {
  columns: readonly string[];
  rows: readonly string[];
  /** Returns a cell by its row and column; undefined where nothing was run yet. */
  cellAt: (row: number, column: number) => ChoosableCell | undefined;
  onChoose: (row: number, column: number) => void;
  testId: string;
}) {
  return (
    <div className="overflow-auto p-1">
      <table className="border-separate border-spacing-[3px] font-mono text-xs" data-testid={testId}>
        <thead>
          <tr>
            <th />
            {columns.map(column => (
              <th key={column} scope="col" className="font-normal text-soft">
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, r) => (
            <tr key={row}>
              <th scope="row" className="pr-1 text-right font-normal text-soft">
                {row}
              </th>
              {columns.map((column, c) => {
                const cell = cellAt(r, c);
                return (
                  <td key={column} className="text-center text-soft">
                    {cell ? (
                      <button
                        type="button"
                        aria-label={cell.words}
                        aria-pressed={cell.isChosen}
                        disabled={cell.isDisabled}
                        className={`h-6 min-w-9 rounded px-1 whitespace-nowrap aria-pressed:underline ${cell.isFull ? "bg-fern text-on-lichen" : "bg-sand text-soft"} ${cell.outline ? OUTLINES[cell.outline] : ""}`}
                        onClick={() => onChoose(r, c)}
                      >
                        {cell.text}
                      </button>
                    ) : (
                      "·"
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
