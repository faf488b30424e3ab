import type { KeyboardEvent } from "react";
import { findEdges, type Kit, type SweepPoint } from "#core";
import type { DrawnSweep, SweptChoice } from "../../document/studySettings";
import { useDocument } from "../../document/workbenchContext";
import { Button } from "../../ui/Button";
import { LineChart, type ChartMark } from "../../ui/LineChart";
import { SavePicture } from "../SavePicture";
import { axisWords, linesOf, nearestPoint } from "../model/sweepLines";
import { formatShort, presentOf } from "../model/sweptNumbers";
import { EdgeWords, PointWords } from "./SweepWords";
import type { Trying } from "./useTrying";

/** Tries a value by arrow keys, keeps it by Enter, discards it by Escape or undo. */
function handleKeys(
  event: KeyboardEvent,
  points: readonly SweepPoint[],
  now: number,
  choice: SweptChoice,
  trying: Trying,
): void {
  const step = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  const isUndo =
    (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && trying.value !== undefined;
  if (step === undefined && event.key !== "Enter" && event.key !== "Escape" && !isUndo) return;
  event.preventDefault();
  if (event.key === "Enter") return trying.keep();
  if (event.key === "Escape" || isUndo) {
    event.stopPropagation();
    return trying.letGo();
  }
  const values = points.filter(({ runs }) => runs > 0).map(({ value }) => value);
  const nearest = nearestPoint(points, now);
  const at = nearest ? values.indexOf(nearest.value) : 0;
  const next = values[Math.min(values.length - 1, Math.max(0, at + (step ?? 0)))];
  if (next !== undefined) trying.tryValue(choice.swept, next, choice.name);
}

/** Keeps or discards the value being tried; without one, a hint. */
export function TryBar({
  trying,
  choice,
  two,
}: {
  trying: Trying;
  choice: SweptChoice;
  two?: SweptChoice | undefined;
}) {
  const open = useDocument(state => state.kit);
  const besides = two && open ? ` and ${formatShort(presentOf(open, two), two)}` : "";
  return (
    <p className="flex min-h-9 items-center gap-2 text-sm">
      {trying.value === undefined ? (
        <span className="text-soft">
          {two
            ? "Choose a cell: its pair is tried on the tape."
            : "Click on the chart, or use its arrow keys, to try a value: the tape shows what it does."}
        </span>
      ) : (
        <>
          <Button look="strong" onClick={trying.keep}>
            Keep {formatShort(trying.value, choice)}
            {besides}
          </Button>
          <Button onClick={trying.letGo}>Put it back</Button>
          <span className="text-soft">tried; the tape shows what it does</span>
        </>
      )}
    </p>
  );
}

/** Returns the marks of a chart: the present value, the lowest without losses, the one being tried. */
function listMarks(
  points: readonly SweepPoint[],
  present: number,
  tried: number | undefined,
  choice: SweptChoice,
): ChartMark[] {
  const { nothingLostFrom } = findEdges(points, present);
  return [
    { x: present, words: `now ${formatShort(present, choice)}`, look: "ink" },
    ...(nothingLostFrom === undefined
      ? []
      : [{ x: nothingLostFrom, words: "nothing lost from here", look: "moss" } as const]),
    ...(tried === undefined
      ? []
      : [{ x: tried, words: `tried ${formatShort(tried, choice)}`, look: "dew" } as const]),
  ];
}

/** The lines of a sweep over one number, with the words of the value that is looked at. */
export function SweepLines({
  points,
  drawn: { choice, hand },
  base,
  trying,
  group,
}: {
  /** Not empty. */
  points: readonly SweepPoint[];
  drawn: DrawnSweep;
  /** The swept kit. */
  base: Kit;
  trying: Trying;
  /** One of several groups of takes, and the scale that their charts share; undefined for all takes together. */
  group?: { readonly name: string; readonly yMost: number };
}) {
  const present = presentOf(base, choice);
  const at = trying.value ?? present;
  const point = points.find(({ value }) => value === at);
  const whose = group ? `${group.name}: ` : "";
  return (
    <>
      <LineChart
        isMain={!group}
        label={`${whose}${choice.name}, swept: arrows try a value on the tape, Enter keeps it, Escape puts it back`}
        lines={linesOf(points)}
        marks={listMarks(points, present, trying.value, choice)}
        xWords={axisWords(choice, base.rate)}
        yWords={
          hand
            ? "events a play of all takes"
            : `events in ${points[0]!.runs === 1 ? "the take" : "all takes"}`
        }
        yMost={group?.yMost}
        formatX={x => formatShort(x, choice)}
        onPick={x => {
          const nearest = nearestPoint(points, x);
          if (nearest) trying.tryValue(choice.swept, nearest.value, choice.name);
        }}
        onKeyDown={event => handleKeys(event, points, at, choice, trying)}
        save={makeSvg => (
          <SavePicture
            file="sweep"
            name={`${whose}${choice.name}, swept`}
            makeSvg={() => makeSvg(`${whose}${choice.name}, swept`)}
          />
        )}
      />
      {point && <PointWords point={point} points={points} choice={choice} rateHz={base.rate} />}
    </>
  );
}

/** The results of a sweep over one number: its limits in words, its lines, and the value being tried. */
export function SweepChart(shown: {
  /** Not empty. */
  points: readonly SweepPoint[];
  drawn: DrawnSweep;
  /** The swept kit. */
  base: Kit;
  /** Whether every value has all of its plays. */
  isWhole: boolean;
  trying: Trying;
}) {
  const {
    points,
    drawn: { choice, values },
    base,
    isWhole,
    trying,
  } = shown;
  return (
    <>
      <EdgeWords
        points={points}
        count={values.length}
        present={presentOf(base, choice)}
        choice={choice}
        rateHz={base.rate}
        isBroken={points.some(({ runs }) => runs === 0)}
        isWhole={isWhole}
      />
      <TryBar trying={trying} choice={choice} />
      <SweepLines {...shown} />
    </>
  );
}
