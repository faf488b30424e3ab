import { useState } from "react";
import { nameOf, qualifies, type GoalCell, type GoalPlace, type Kit } from "#core";
import type { GoalAsked } from "../../document/studySettings";
import { Button } from "../../ui/Button";
import { FrameLink } from "../FrameLink";
import { percent } from "../hands/ShareBar";
import { isPresent, listSmaller, type GoalFieldModel, type GroupCell } from "../model/goalField";
import { formatShort } from "../model/sweptNumbers";
import type { Trying } from "../sweep/useTrying";

const shareOf = ({ meeting, plays }: GoalCell) => (plays === 0 ? 0 : meeting / plays);
/** Whole percents, rounded down, so that a cell never reads as a share that it does not have. */
const wholePercent = (cell: GoalCell) => Math.floor(shareOf(cell) * 100 + 1e-9);

/** Formats the numbers of a place: "5f and 6f". */
function formatPlace(asked: GoalAsked, { row, cell }: GoalPlace): string {
  const one = formatShort(cell.value, asked.one);
  return asked.two ? `${one} and ${formatShort(row!, asked.two)}` : one;
}

/** Why a smaller number does not do: the press that is kept least often there. */
function WhyNotLess({
  kit,
  asked,
  field,
  place,
  playPercent,
}: {
  kit: Kit;
  asked: GoalAsked;
  field: GoalFieldModel;
  place: GoalPlace;
  playPercent: number;
}) {
  // A place that is not enough is explained itself.
  const listed = qualifies(place.cell, playPercent / 100)
    ? listSmaller(field, place)
    : [{ number: "own" as const, place }];
  const failing = listed.filter(({ place: { cell } }) => !qualifies(cell, playPercent / 100));
  return (
    <ul className="mt-1 text-sm" data-testid="goal-why">
      {failing.map(({ number, place: smaller }) => {
        const { hardest } = smaller.cell;
        return (
          <li key={number}>
            {number !== "own" &&
              `Not ${formatPlace(asked, smaller)}: ${percent(shareOf(smaller.cell))} of plays. `}
            {hardest && (
              <>
                Kept least often:{" "}
                <FrameLink
                  take={hardest.take}
                  frame={hardest.frame}
                  words={nameOf(kit, "controls", hardest.control)}
                />
                , {hardest.kept} of {hardest.plays} plays
              </>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** The share of plays that meet the goal by group of takes, the group that meets it least first. */
function GroupShares({ groups, playPercent }: { groups: readonly GroupCell[]; playPercent: number }) {
  if (groups.length === 0) return null;
  const sorted = [...groups].sort((a, b) => shareOf(a.cell) - shareOf(b.cell));
  return (
    <ul className="flex flex-wrap gap-x-5 text-sm" data-testid="goal-groups">
      {sorted.map(({ name, cell }) => (
        <li key={name}>
          <b>{name}</b>{" "}
          {cell.plays === 0 ? (
            <span className="text-soft">no meant press</span>
          ) : (
            <span className={qualifies(cell, playPercent / 100) ? "" : "text-foxglove"}>
              {percent(shareOf(cell))}
              {!qualifies(cell, playPercent / 100) && ", not enough"}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}

/** The place that is looked at: its figures, what a smaller number breaks, and the button that keeps it. */
function PlaceWords({
  kit,
  asked,
  field,
  place,
  isBest,
  playPercent,
  trying,
}: {
  kit: Kit;
  asked: GoalAsked;
  field: GoalFieldModel;
  place: GoalPlace;
  isBest: boolean;
  playPercent: number;
  trying: Trying;
}) {
  const { cell } = place;
  return (
    <div className="mt-1 min-h-20" data-testid="goal-place">
      <p>
        {isBest && <b>Chosen: </b>}
        {!field.best && <b className="text-foxglove">Nothing here is enough. The nearest: </b>}
        <b className="font-mono">{formatPlace(asked, place)}</b>: {percent(shareOf(cell))} of {cell.plays}{" "}
        plays {asked.groups.length > 1 && "of the group that meets it least "}meet the goal,{" "}
        {percent(cell.meant === 0 ? 0 : cell.kept / cell.meant)} of meant presses are kept,{" "}
        {(cell.unwanted / Math.max(1, cell.plays)).toFixed(2)} unwanted a play.{" "}
        {trying.value !== undefined && (
          <>
            <Button look="strong" onClick={trying.keep}>
              Keep {formatPlace(asked, place)}
            </Button>
            <Button look="quiet" onClick={trying.letGo}>
              Put it back
            </Button>
          </>
        )}
      </p>
      <GroupShares groups={field.groupsAt(place.row, cell.value)} playPercent={playPercent} />
      <WhyNotLess kit={kit} asked={asked} field={field} place={place} playPercent={playPercent} />
    </div>
  );
}

/** A cell for each value or pair: the plays that meet the goal, in percent. A click tries it on the tape. */
export function GoalField({
  kit,
  asked,
  field,
  playPercent,
  trying,
}: {
  /** The kit without the tried values. */
  kit: Kit;
  asked: GoalAsked;
  field: GoalFieldModel;
  playPercent: number;
  trying: Trying;
}) {
  const [chosen, setChosen] = useState<{ row: number | undefined; value: number } | undefined>();
  const { columns, rows, cellAt, best, nearest } = field;
  const looked = chosen && cellAt(chosen.row, chosen.value);
  const place = chosen && looked ? { row: chosen.row, cell: looked } : (best ?? nearest);
  const tryIt = (row: number | undefined, value: number) => {
    setChosen({ row, value });
    const besides = asked.two && row !== undefined ? [{ swept: asked.two.swept, value: row }] : [];
    trying.tryValue(asked.one.swept, value, asked.one.name, besides);
  };
  const lookOf = (row: number | undefined, cell: GoalCell) => {
    const isBest = best?.row === row && best?.cell.value === cell.value;
    const isNow = isPresent(kit, asked, row, cell.value);
    const fill = qualifies(cell, playPercent / 100) ? "bg-fern text-on-lichen" : "bg-sand text-soft";
    return `${fill} ${isBest ? "outline-3 outline-ink" : isNow ? "outline-2 outline-dashed outline-moss" : ""}`;
  };
  return (
    <>
      <p className="text-sm text-soft">
        Across: {asked.one.name}. {asked.two && `Down: ${asked.two.name}. `}Each cell: plays that meet the
        goal, in percent{asked.groups.length > 1 && " of the group that meets it least"}; filled where that is
        enough, the chosen one outlined, the present one dashed.
      </p>
      {place && (
        <PlaceWords
          kit={kit}
          asked={asked}
          field={field}
          place={place}
          isBest={
            place === best || (best !== undefined && place.row === best.row && place.cell === best.cell)
          }
          playPercent={playPercent}
          trying={trying}
        />
      )}
      <div className="overflow-auto p-1">
        <table className="border-separate border-spacing-[3px] font-mono text-xs" data-testid="goal-field">
          <thead>
            <tr>
              <th />
              {columns.map(value => (
                <th key={value} scope="col" className="font-normal text-soft">
                  {formatShort(value, asked.one)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(row => (
              <tr key={String(row)}>
                <th scope="row" className="pr-1 text-right font-normal text-soft">
                  {asked.two && row !== undefined ? formatShort(row, asked.two) : ""}
                </th>
                {columns.map(value => {
                  const cell = cellAt(row, value);
                  if (!cell)
                    return (
                      <td key={value} className="text-center text-soft">
                        ·
                      </td>
                    );
                  const words = formatPlace(asked, { row, cell });
                  return (
                    <td key={value}>
                      <button
                        type="button"
                        aria-label={`${words}: ${wholePercent(cell)} % of plays meet the goal`}
                        aria-pressed={chosen !== undefined && chosen.row === row && chosen.value === value}
                        disabled={cell.plays === 0}
                        className={`h-6 w-9 rounded aria-pressed:underline ${lookOf(row, cell)}`}
                        onClick={() => tryIt(row, value)}
                      >
                        {wholePercent(cell)}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
