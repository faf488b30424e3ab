import { useMemo, useState, type KeyboardEvent } from "react";
import {
  contrastGroups,
  countWords,
  formatContrast,
  MAX_SHIFT_FRAMES,
  reportMoves,
  type Program,
  type TakeFeel,
} from "#core";
import { createScale, type MapScale } from "../maps/scale";
import { TimeAxis } from "../maps/TimeAxis";
import { FeelLegend } from "./FeelPicture";
import { FeelStrokes, walkStrokes } from "./FeelStrokes";
import { FrameLink } from "./FrameLink";
import { percent } from "./hands/ShareBar";
import { listFeelLanes, listLaneCounts, type FeelLane, type FeelStroke } from "./model/feelLanes";
import type { TakeGroup } from "./model/takeSelection";
import { OnsetRow } from "./OnsetRow";
import { useGoTo } from "./useGoTo";
import { MAX_GROUPS } from "./useGroups";

/** The width of all cells together, and the narrowest and the widest cell. */
const ROOM_PX = 860;
const MIN_PX = 205;
const MAX_PX = 420;
const STROKE_PX = 9;
const ONE_GROUP =
  "There is one group only. A take gets its player, device and session in the list of takes on Play.";

/** Returns the common axis of a number of columns. */
const scaleOf = (columns: number): MapScale =>
  createScale(
    -MAX_SHIFT_FRAMES - 2,
    MAX_SHIFT_FRAMES + 2,
    Math.min(MAX_PX, Math.max(MIN_PX, Math.floor(ROOM_PX / Math.max(1, columns)) - 12)),
  );

/** The figures of one group for one move. */
interface Cell {
  readonly lane: FeelLane | undefined;
  readonly lost: number;
  readonly asked: number;
  readonly medianDelay: number | undefined;
}

/** The presses of one group for one move: their counts, and their strokes on the common axis. */
function CellPicture({
  cell,
  group,
  scale,
  chosen,
  onChoose,
}: {
  cell: Cell;
  group: string;
  scale: MapScale;
  chosen: number;
  onChoose: (place: number) => void;
}) {
  const { lane, lost, asked, medianDelay } = cell;
  if (!lane) return <span className="text-soft">no press</span>;
  const height = lane.strokes.length * STROKE_PX + 4;
  const counts = listLaneCounts(lane).join(" · ");
  const walk = (event: KeyboardEvent) => {
    const place = walkStrokes(event.key, chosen, lane.strokes.length);
    if (place === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onChoose(place);
  };
  return (
    <>
      <p className="text-xs text-soft">
        {counts}
        {lost > 0 && <> ({percent(lost / asked)} lost)</>}
        {medianDelay !== undefined && medianDelay > 0 && <> · median delay {medianDelay}f</>}
      </p>
      <svg
        width={scale.widthPx}
        height={height}
        tabIndex={0}
        role="group"
        aria-label={`${group}, ${lane.name}: ${counts}. Arrows walk the presses, the tightest first; the tape follows.`}
        onKeyDown={walk}
      >
        <line x1={scale.x(0)} x2={scale.x(0)} y1="0" y2={height} className="stroke-line" />
        <FeelStrokes
          strokes={lane.strokes}
          scale={scale}
          top={6}
          stepPx={STROKE_PX}
          widthPx={scale.widthPx}
          chosen={chosen}
          onChoose={onChoose}
        />
      </svg>
    </>
  );
}

/** Returns the groups with their findings, their cells by move, and the contrasts, all from the studied takes. */
function useContrasts(
  program: Program,
  feels: readonly TakeFeel[],
  groups: readonly TakeGroup[],
  nameOfMove: (move: number) => string,
) {
  return useMemo(() => {
    const all = groups.map(({ name, ids }) => {
      const own = feels.filter(({ take }) => ids.has(take));
      const onsets = own.flatMap(feel => feel.onsets);
      return { name, takes: own.length, moves: reportMoves(program, own), onsets };
    });
    const played = all.filter(({ takes }) => takes > 0);
    const studied = played.slice(0, MAX_GROUPS);
    const contrasts = contrastGroups(studied);
    const cells = studied.map(({ moves }) => {
      const lanes = new Map(listFeelLanes(moves, nameOfMove).map(lane => [lane.move, lane]));
      return moves.map(({ move, rooms, misses, medianDelay }): Cell => {
        return {
          lane: lanes.get(move),
          lost: misses.length,
          asked: rooms.length + misses.length,
          medianDelay,
        };
      });
    });
    const sentence =
      studied.length < 2
        ? ONE_GROUP
        : (formatContrast(contrasts, studied, nameOfMove) ??
          "The groups lose the same share of presses of every move.");
    return { studied, contrasts, cells, sentence, more: played.length - studied.length };
  }, [program, feels, groups, nameOfMove]);
}

/** The feel of all moves, a column for each group of takes, on one axis; the move in which they differ most first. */
export function FeelSideBySide({
  program,
  feels,
  groups,
  nameOfMove,
}: {
  program: Program;
  feels: readonly TakeFeel[];
  groups: readonly TakeGroup[];
  nameOfMove: (move: number) => string;
}) {
  const goTo = useGoTo();
  const { studied, contrasts, cells, sentence, more } = useContrasts(program, feels, groups, nameOfMove);
  const onsets = useMemo(() => studied.map(group => group.onsets), [studied]);
  const scale = useMemo(() => scaleOf(studied.length), [studied.length]);
  const [chosen, setChosen] = useState<{ move: number; stroke: FeelStroke }>();
  const placeOf = (move: number, group: number) =>
    cells[group]![move]!.lane?.strokes.findIndex(
      ({ take, frame }) =>
        chosen?.move === move && take === chosen.stroke.take && frame === chosen.stroke.frame,
    ) ?? -1;
  const choose = (move: number, group: number) => (place: number) => {
    const stroke = cells[group]![move]!.lane!.strokes[place]!;
    setChosen({ move, stroke });
    goTo(stroke.take, stroke.frame);
  };
  return (
    <figure className="mt-2" data-testid="feel-side-by-side">
      <figcaption className="font-semibold">
        {sentence}
        {more > 0 &&
          ` ${countWords(more, "more group is", "more groups are")} not shown: choose fewer takes.`}
      </figcaption>
      <FeelLegend />
      <p className="min-h-7 text-sm" aria-live="polite">
        {chosen ? (
          <FrameLink
            take={chosen.stroke.take}
            frame={chosen.stroke.frame}
            words={`${nameOfMove(chosen.move)}: ${chosen.stroke.words}.`}
          />
        ) : (
          <span className="text-soft">Choose a press: the tape goes there.</span>
        )}
      </p>
      <div className="overflow-x-auto">
        <table className="text-sm" aria-label="Feel side by side">
          <thead>
            <tr className="align-bottom">
              <td />
              {studied.map(({ name, takes }, group) => (
                <th key={group} scope="col" className="pr-3 text-left font-normal">
                  <p className="truncate" style={{ maxWidth: scale.widthPx }} title={name}>
                    <span className="text-soft">{countWords(takes, "take")}</span> <b>{name}</b>
                  </p>
                  <svg width={scale.widthPx} height="36" className="block">
                    <TimeAxis scale={scale} y={2} rateHz={program.rateHz} isSigned />
                  </svg>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <OnsetRow groups={onsets} widthPx={scale.widthPx} />
            {contrasts.map(({ move }) => (
              <tr key={move} className="border-t border-line align-top">
                <th
                  scope="row"
                  className="max-w-36 min-w-24 truncate py-2 pr-3 text-left font-serif text-base"
                  title={nameOfMove(move)}
                >
                  {nameOfMove(move)}
                </th>
                {studied.map(({ name }, group) => (
                  <td key={group} className="py-2 pr-3">
                    <CellPicture
                      cell={cells[group]![move]!}
                      group={name}
                      scale={scale}
                      chosen={placeOf(move, group)}
                      onChoose={choose(move, group)}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </figure>
  );
}
