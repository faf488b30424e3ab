import { useState, type KeyboardEvent } from "react";
import { countWords, MAX_SHIFT_FRAMES } from "#core";
import { TimeAxis } from "../maps/TimeAxis";
import { createScale, type MapScale } from "../maps/scale";
import { cutLetters } from "../ui/fitText";
import { FrameLink } from "./FrameLink";
import type { FeelLane, FeelStroke } from "./model/feelLanes";
import { useGoTo } from "./useGoTo";

const LABEL_PX = 190;
const WIDTH = 900;
const AXIS_PX = 40;
const STROKE_PX = 10;
const LEAST_LANE_PX = 44;
/** How far a stroke goes on where its end was not found. */
const OPEN_PX = 10;
const LABEL_LETTERS = 22;

const laneHeight = ({ strokes }: FeelLane) => Math.max(LEAST_LANE_PX, strokes.length * STROKE_PX + 10);

const colourOf = ({ look, isTight }: FeelStroke) => (look === "lost" || isTight ? "foxglove" : "moss");

/** One press: its stretch as a bar, dashed where it goes on, and its mark at the frame on which it came. */
function Stroke({
  stroke,
  scale,
  y,
  isChosen,
}: {
  stroke: FeelStroke;
  scale: MapScale;
  y: number;
  isChosen: boolean;
}) {
  const { from, to, isOpenFrom, isOpenTo, look } = stroke;
  const colour = colourOf(stroke);
  const [x0, x1, zero] = [scale.x(from), scale.x(to), scale.x(0)];
  const line = { y1: y, y2: y, className: colour === "moss" ? "stroke-fern" : "stroke-foxglove" };
  return (
    <g>
      {isChosen && (
        <rect
          x={x0 - OPEN_PX - 4}
          y={y - 6}
          width={x1 - x0 + 2 * OPEN_PX + 8}
          height="12"
          rx="6"
          className="fill-none stroke-ink"
          data-testid="chosen-stroke"
        />
      )}
      <line {...line} x1={x0} x2={x1} strokeWidth={look === "lost" ? 1.5 : 5} />
      {isOpenFrom && <line {...line} x1={x0 - OPEN_PX} x2={x0} strokeWidth="3" strokeDasharray="2 2" />}
      {isOpenTo && <line {...line} x1={x1} x2={x1 + OPEN_PX} strokeWidth="3" strokeDasharray="2 2" />}
      {look === "lost" ? (
        <path
          d={`M${zero - 3} ${y + 3.5}a4.2 4.2 0 1 1 5.8 -0.4`}
          strokeWidth="2"
          className="fill-none stroke-foxglove"
        />
      ) : (
        <circle
          cx={zero}
          cy={y}
          r="3.5"
          strokeWidth="2"
          className={`${look === "saved" ? "fill-leaf" : "fill-moss-deep"} stroke-moss-deep`}
        />
      )}
    </g>
  );
}

/** A lane: the name of a move with its counts, and its presses. */
function Lane({
  lane,
  scale,
  top,
  chosen,
  onChoose,
}: {
  lane: FeelLane;
  scale: MapScale;
  top: number;
  /** The place of the chosen stroke, −1 for none. */
  chosen: number;
  onChoose: (place: number) => void;
}) {
  const { name, strokes, used, lost, more } = lane;
  const yOf = (place: number) => top + 10 + place * STROKE_PX;
  const walk = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onChoose(Math.min(strokes.length - 1, Math.max(0, chosen < 0 ? 0 : chosen + step)));
  };
  const counts = [
    `${used} used`,
    ...(lost > 0 ? [`${lost} lost`] : []),
    ...(more > 0 ? [`${more} not drawn`] : []),
  ];
  return (
    <g
      tabIndex={0}
      role="group"
      aria-label={`${name}: ${counts.join(", ")}. Arrows walk the presses, the tightest first; the tape follows.`}
      onKeyDown={walk}
      data-testid={`feel-lane-${lane.move}`}
    >
      <line x1="0" x2={WIDTH} y1={top} y2={top} className="stroke-line" />
      <text x="0" y={top + 20} className="fill-ink font-serif text-base font-semibold">
        <title>{name}</title>
        {cutLetters(name, LABEL_LETTERS)}
      </text>
      <text x="0" y={top + 36} className="fill-soft text-xs">
        {counts.join(" · ")}
      </text>
      <g transform={`translate(${LABEL_PX} 0)`}>
        {strokes.map((stroke, place) => (
          <g
            key={`${stroke.take} ${stroke.frame} ${stroke.look}`}
            className="cursor-pointer"
            onClick={() => onChoose(place)}
          >
            <rect x="0" y={yOf(place) - 5} width={WIDTH - LABEL_PX} height={STROKE_PX} fill="transparent" />
            <Stroke stroke={stroke} scale={scale} y={yOf(place)} isChosen={place === chosen} />
          </g>
        ))}
      </g>
    </g>
  );
}

/** The marks of the picture, each with its word. */
function Legend() {
  return (
    <p className="flex flex-wrap gap-x-5 text-sm text-soft" aria-hidden>
      <span>● used at once</span>
      <span>○ saved by buffer or coyote</span>
      <span className="text-foxglove">◔ lost, with the shift that saves it</span>
      <span>
        bar: where it would still do, <span className="text-foxglove">within 1f in this colour</span>, dashed
        where it goes on
      </span>
    </p>
  );
}

/**
 * The feel of all moves in one picture: time across, a lane a move, each press a bar as wide as the stretch in which it would
 * still do, around the frame on which it came. The chosen press is a sentence above, and the tape shows it.
 */
export function FeelPicture({ lanes, rateHz }: { lanes: readonly FeelLane[]; rateHz: number }) {
  const goTo = useGoTo();
  const [chosen, setChosen] = useState<{ readonly move: number; readonly place: number }>();
  const scale = createScale(-MAX_SHIFT_FRAMES - 2, MAX_SHIFT_FRAMES + 2, WIDTH - LABEL_PX);
  const tops = lanes.reduce((all, lane) => [...all, all.at(-1)! + laneHeight(lane)], [AXIS_PX]);
  const height = tops.at(-1)!;
  const own = lanes.find(({ move }) => move === chosen?.move);
  const stroke = chosen && own?.strokes[chosen.place];
  const choose = (lane: FeelLane) => (place: number) => {
    setChosen({ move: lane.move, place });
    const { take, frame } = lane.strokes[place]!;
    goTo(take, frame);
  };
  if (lanes.length === 0) return null;
  const presses = lanes.reduce((sum, lane) => sum + lane.used + lane.lost, 0);
  return (
    <figure data-testid="feel-picture" className="mt-2">
      <figcaption className="text-sm text-soft">
        Frames earlier and later than each press came; {countWords(presses, "press", "presses")}, the tightest
        of each move first.
      </figcaption>
      <Legend />
      <p className="min-h-7 text-sm" aria-live="polite" data-testid="feel-chosen">
        {stroke && own ? (
          <FrameLink take={stroke.take} frame={stroke.frame} words={`${own.name}: ${stroke.words}.`} />
        ) : (
          <span className="text-soft">Choose a press: the tape goes there.</span>
        )}
      </p>
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="mt-1 w-full max-w-[1100px]"
        role="group"
        aria-label="Feel of all moves"
      >
        <g transform={`translate(${LABEL_PX} 0)`}>
          <TimeAxis scale={scale} y={4} rateHz={rateHz} isSigned />
          <line x1={scale.x(0)} x2={scale.x(0)} y1="4" y2={height} className="stroke-soft" />
        </g>
        {lanes.map((lane, k) => (
          <Lane
            key={lane.move}
            lane={lane}
            scale={scale}
            top={tops[k]!}
            chosen={chosen?.move === lane.move ? chosen.place : -1}
            onChoose={choose(lane)}
          />
        ))}
      </svg>
    </figure>
  );
}
