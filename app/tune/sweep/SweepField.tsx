import type { SweptChoice } from "../../document/studySettings";
import { useDocument } from "../../document/workbenchContext";
import type { Kit, SweepPoint } from "#core";
import { FieldDrawing } from "../FieldDrawing";
import { FieldTable, type ChoosableCell } from "../FieldTable";
import { HiddenPicture } from "../HiddenPicture";
import { areShowingsNamed, sweepCellOf } from "../model/sweepCells";
import { keepWholeRows } from "../model/sweepLines";
import { formatShort, presentOf } from "../model/sweptNumbers";
import { TryBar } from "./SweepChart";
import { PairWords } from "./SweepWords";
import type { Trying } from "./useTrying";

/** Two numbers at once: a cell for each pair of values, filled where nothing is lost or unwanted. A click tries it on the tape. */
export function SweepField({
  one,
  two,
  rows,
  plays,
  cells,
  kit,
  trying,
  group,
}: {
  one: SweptChoice;
  two: SweptChoice;
  rows: readonly number[];
  /** How often each take is played. */
  plays: number;
  cells: readonly (readonly SweepPoint[] | undefined)[];
  /** The kit without the tried values. */
  kit: Kit;
  trying: Trying;
  /** The group of takes that was run; undefined for all takes together. */
  group?: string;
}) {
  const open = useDocument(state => state.kit) ?? kit;
  const columns = [...new Set(cells.flatMap(row => row ?? []).map(({ value }) => value))].sort(
    (a, b) => a - b,
  );
  const whole = keepWholeRows(cells, plays);
  const points = whole.flatMap(row => row ?? []);
  const isShown = areShowingsNamed(points);
  const pointAt = (r: number, value: number) => whole[r]?.find(item => item.value === value);
  const isNow = (r: number, value: number) =>
    rows[r] === presentOf(kit, two) && value === presentOf(kit, one);
  const isTried = (r: number, value: number) => trying.value === value && rows[r] === presentOf(open, two);
  const tryIt = (r: number, value: number) =>
    trying.tryValue(one.swept, value, one.name, [{ swept: two.swept, value: rows[r]! }]);
  const looked = whole.flatMap((_, r) => {
    const value = columns.find(own => (trying.value === undefined ? isNow(r, own) : isTried(r, own)));
    const point = value === undefined ? undefined : pointAt(r, value);
    return point && point.runs > 0 ? [{ row: rows[r]!, point }] : [];
  })[0];
  const columnWords = columns.map(value => formatShort(value, one));
  const rowWords = rows.map(value => formatShort(value, two));
  const cellAt = (r: number, c: number): ChoosableCell | undefined => {
    const value = columns[c]!;
    const point = pointAt(r, value);
    if (!point) return undefined;
    const { text, isClean, words } = sweepCellOf(point, isShown);
    return {
      text,
      isFull: isClean,
      outline: isTried(r, value) ? "chosen" : isNow(r, value) ? "present" : undefined,
      words: `${one.name} ${columnWords[c]}, ${two.name} ${rowWords[r]}: ${words}`,
      isChosen: isTried(r, value),
      isDisabled: point.runs === 0,
    };
  };
  return (
    <div className="mt-2 overflow-auto">
      <p className="text-sm text-soft">
        Across: {one.name}. Down: {two.name}. In each cell, over all runs: presses lost;{" "}
        {isShown && "with ?, showings of prompts not answered; "}with !, events that are unwanted or gone.
        Filled with ● where there are none; the present pair dashed, the tried one outlined.
      </p>
      {group === undefined && <TryBar trying={trying} choice={one} two={two} />}
      {looked && <PairWords one={one} two={two} row={looked.row} point={looked.point} points={points} />}
      <FieldTable
        columns={columnWords}
        rows={rowWords}
        cellAt={cellAt}
        onChoose={(r, c) => tryIt(r, columns[c]!)}
        testId="sweep-field"
      />
      <HiddenPicture
        file="sweep"
        name={`${group === undefined ? "" : `${group}: `}${one.name} and ${two.name}, swept`}
        lines={[
          `lost presses; ${isShown ? "?: prompts not answered; " : ""}!: unwanted or gone; ●: none`,
          "dashed: present; outlined: tried",
        ]}
      >
        {ref => (
          <FieldDrawing
            across={one.name}
            down={two.name}
            columns={columnWords}
            rows={rowWords}
            cellAt={cellAt}
            ref={ref}
          />
        )}
      </HiddenPicture>
    </div>
  );
}
