import { useState } from "react";
import { countWords, nameOf, qualifies, type GoalCell, type GoalPlace, type Kit } from "#core";
import type { GoalAsked } from "../../document/studySettings";
import { Button } from "../../ui/Button";
import { FieldDrawing } from "../FieldDrawing";
import { FieldTable, type ChoosableCell } from "../FieldTable";
import { FrameLink } from "../FrameLink";
import { HiddenPicture } from "../HiddenPicture";
import { percent } from "../hands/ShareBar";
import { isPresent, listSmaller, type GoalFieldModel, type GroupCell } from "../model/goalField";
import { formatShort } from "../model/sweptNumbers";
import type { Trying } from "../sweep/useTrying";

const shareOf = ({ meeting, plays }: GoalCell) => (plays === 0 ? 0 : meeting / plays);
/** Whole percents, rounded down, so that a cell never reads as a share that it does not have. */
const wholePercent = (cell: GoalCell) => Math.floor(shareOf(cell) * 100 + 1e-9);
const meetingWords = (cell: GoalCell) => `${wholePercent(cell)} %`;

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
              `Not ${formatPlace(asked, smaller)}: ${meetingWords(smaller.cell)} of plays. `}
            {hardest && (
              <>
                Kept least often, in {hardest.kept} of {countWords(hardest.plays, "play")}:{" "}
                <FrameLink
                  take={hardest.take}
                  frame={hardest.frame}
                  words={nameOf(kit, "controls", hardest.control)}
                />
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
              {meetingWords(cell)}
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
  isWhole,
  trying,
}: {
  kit: Kit;
  asked: GoalAsked;
  field: GoalFieldModel;
  place: GoalPlace;
  isBest: boolean;
  playPercent: number;
  isWhole: boolean;
  trying: Trying;
}) {
  const { cell } = place;
  const soFar = isWhole ? "" : " so far";
  return (
    <div className="mt-1 min-h-20" data-testid="goal-place">
      <p>
        {isBest && <b>Chosen{soFar}: </b>}
        {!field.best && (
          <b className="text-foxglove">
            Nothing here is enough{soFar}. The nearest{soFar}:{" "}
          </b>
        )}
        <b className="font-mono">{formatPlace(asked, place)}</b>: {meetingWords(cell)} of{" "}
        {countWords(cell.plays, "play")} {asked.groups.length > 1 && "of the group that meets it least "}meet
        the goal, {percent(cell.meant === 0 ? 0 : cell.kept / cell.meant)} of meant presses are kept,{" "}
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
      {cell.hopeless > 0 && (
        <p className="text-sm text-soft">
          {countWords(cell.hopeless, "press", "presses")} used neither in the take nor at any value of{" "}
          {asked.one.name}
          {soFar}: mark on the tape those that were not meant.
        </p>
      )}
    </div>
  );
}

/** A cell for each value or pair: the plays that meet the goal, in percent. A click tries it on the tape. */
export function GoalField({
  kit,
  asked,
  field,
  playPercent,
  isWhole,
  trying,
}: {
  /** The kit without the tried values. */
  kit: Kit;
  asked: GoalAsked;
  field: GoalFieldModel;
  playPercent: number;
  /** Whether every cell has all of its plays. */
  isWhole: boolean;
  trying: Trying;
}) {
  const [chosen, setChosen] = useState<{ row: number | undefined; value: number } | undefined>();
  const { columns, rows, cellAt, best, nearest } = field;
  const isEmptySomewhere = rows.some(row => columns.some(value => !cellAt(row, value)?.plays));
  const looked = chosen && cellAt(chosen.row, chosen.value);
  const place = chosen && looked ? { row: chosen.row, cell: looked } : (best ?? nearest);
  const tryIt = (row: number | undefined, value: number) => {
    setChosen({ row, value });
    const besides = asked.two && row !== undefined ? [{ swept: asked.two.swept, value: row }] : [];
    trying.tryValue(asked.one.swept, value, asked.one.name, besides);
  };
  const columnWords = columns.map(value => formatShort(value, asked.one));
  const rowWords = rows.map(row => (asked.two && row !== undefined ? formatShort(row, asked.two) : ""));
  const drawnCell = (r: number, c: number): ChoosableCell | undefined => {
    const [row, value] = [rows[r], columns[c]!];
    const cell = cellAt(row, value);
    if (!cell || cell.plays === 0) return undefined;
    const isBest = best?.row === row && best?.cell.value === value;
    return {
      text: String(wholePercent(cell)),
      isFull: qualifies(cell, playPercent / 100),
      outline: isBest ? "chosen" : isPresent(kit, asked, row, value) ? "present" : undefined,
      words: `${formatPlace(asked, { row, cell })}: ${meetingWords(cell)} of plays meet the goal`,
      isChosen: chosen !== undefined && chosen.row === row && chosen.value === value,
      isDisabled: false,
    };
  };
  return (
    <>
      <p className="text-sm text-soft">
        Across: {asked.one.name}. {asked.two && `Down: ${asked.two.name}. `}Each cell: plays that meet the
        goal, in percent{asked.groups.length > 1 && " of the group that meets it least"}; filled where that is
        enough, the chosen one outlined, the present one dashed
        {isEmptySomewhere && `; a point where nothing was played${isWhole ? "" : " yet"}`}.
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
          isWhole={isWhole}
          trying={trying}
        />
      )}
      <FieldTable
        columns={columnWords}
        rows={rowWords}
        cellAt={drawnCell}
        onChoose={(r, c) => tryIt(rows[r], columns[c]!)}
        testId="goal-field"
      />
      <HiddenPicture
        file="goal"
        name={`Goal: plays that meet it, in percent, ${playPercent} % asked`}
        lines={["filled: enough; outlined: chosen; dashed: present"]}
      >
        {ref => (
          <FieldDrawing
            across={asked.one.name}
            down={asked.two?.name}
            columns={columnWords}
            rows={rowWords}
            cellAt={drawnCell}
            ref={ref}
          />
        )}
      </HiddenPicture>
    </>
  );
}
