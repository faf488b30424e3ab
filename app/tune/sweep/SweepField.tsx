import type { SweptChoice } from "../../document/studySettings";
import { useState } from "react";
import { writeSwept, type Kit, type SweepPoint } from "#core";
import { useWorkbench } from "../../document/workbenchContext";
import { Button } from "../../ui/Button";
import { formatShort, presentOf } from "../model/sweptNumbers";

/**
 * Two numbers at once: a cell for each pair of values, with its losses and unwanted events; a cell without
 * either is full.
 */
export function SweepField({
  one,
  two,
  rows,
  cells,
  kit,
}: {
  one: SweptChoice;
  two: SweptChoice;
  rows: readonly number[];
  cells: readonly (readonly SweepPoint[] | undefined)[];
  kit: Kit;
}) {
  const workbench = useWorkbench();
  const [chosen, setChosen] = useState<{ row: number; value: number } | undefined>();
  const columns = [...new Set(cells.flatMap(list => (list ?? []).map(({ value }) => value)))].sort(
    (a, b) => a - b,
  );
  const isNow = (row: number, value: number) => row === presentOf(kit, two) && value === presentOf(kit, one);
  const keep = () => {
    if (!chosen) return;
    workbench.editKit(`${one.name} and ${two.name}`, now => {
      const first = writeSwept(now, one.swept, chosen.value);
      return (first && writeSwept(first, two.swept, chosen.row)) ?? now;
    });
    setChosen(undefined);
  };
  return (
    <div className="mt-2 overflow-auto">
      <p className="text-sm text-soft">
        Across: {one.name}. Down: {two.name}. In each cell: presses lost, and what is unwanted or gone, over
        all runs; a whole stone has neither.
      </p>
      <table className="mt-1 border-collapse font-mono text-xs" data-testid="sweep-field">
        <thead>
          <tr>
            <th />
            {columns.map(value => (
              <th key={value} scope="col" className="px-1 font-normal text-soft">
                {formatShort(value, one)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, r) => (
            <tr key={row}>
              <th scope="row" className="pr-2 text-right font-normal text-soft">
                {formatShort(row, two)}
              </th>
              {columns.map(value => {
                const point = cells[r]?.find(item => item.value === value);
                const bad = point ? point.unwanted + point.gone : 0;
                const isClean = point !== undefined && point.runs > 0 && point.lostPresses === 0 && bad === 0;
                const isChosen = chosen?.row === row && chosen.value === value;
                return (
                  <td key={value} className="p-px">
                    <button
                      type="button"
                      aria-label={`${one.name} ${formatShort(value, one)}, ${two.name} ${formatShort(row, two)}: ${point ? `${point.lostPresses} lost, ${point.unwanted} unwanted, ${point.gone} gone` : "not worked out yet"}`}
                      aria-pressed={isChosen}
                      disabled={!point || point.runs === 0}
                      className={`h-6 w-11 rounded ${isClean ? "bg-fern text-on-lichen" : "bg-sand"} ${isChosen ? "outline-2 outline-ink" : isNow(row, value) ? "outline-2 outline-moss" : ""}`}
                      onClick={() => setChosen({ row, value })}
                    >
                      {!point ? "·" : isClean ? "●" : `${point.lostPresses}/${bad}`}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {chosen && (
        <p className="mt-2">
          <Button look="strong" onClick={keep}>
            Keep {formatShort(chosen.value, one)} and {formatShort(chosen.row, two)}
          </Button>
        </p>
      )}
    </div>
  );
}
