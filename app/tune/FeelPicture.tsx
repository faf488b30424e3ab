import { useRef, useState, type KeyboardEvent } from "react";
import { countWords, MAX_SHIFT_FRAMES, cutLetters } from "#core";
import { TimeAxis } from "../maps/TimeAxis";
import { createScale, type MapScale } from "../maps/scale";
import { Button } from "../ui/Button";
import { FrameLink } from "./FrameLink";
import { FeelStrokes, walkStrokes } from "./FeelStrokes";
import { listLaneCounts, type FeelLane } from "./model/feelLanes";
import { inksOf, pictureOf } from "../ui/svgPicture";
import { SavePicture } from "./SavePicture";
import { useGoTo } from "./useGoTo";

const LABEL_PX = 190;
const WIDTH = 900;
const AXIS_PX = 40;
const STROKE_PX = 10;
const LEAST_LANE_PX = 44;
const LABEL_LETTERS = 22;

/** The number of lanes drawn at first: a picture of more takes long to draw, and to scroll. */
const MAX_LANES = 60;

const laneHeight = ({ strokes }: FeelLane) => Math.max(LEAST_LANE_PX, strokes.length * STROKE_PX + 10);

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
  const { name, strokes } = lane;
  const walk = (event: KeyboardEvent) => {
    const place = walkStrokes(event.key, chosen, strokes.length);
    if (place === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onChoose(place);
  };
  const counts = listLaneCounts(lane);
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
        <FeelStrokes
          strokes={strokes}
          scale={scale}
          top={top + 10}
          stepPx={STROKE_PX}
          widthPx={WIDTH - LABEL_PX}
          chosen={chosen}
          onChoose={onChoose}
        />
      </g>
    </g>
  );
}

const FILE_LEGEND = [
  "● used directly   ○ saved by buffer or coyote   ◔ lost, with the shift that saves it",
  "bar: where it would still do, frames earlier and later than it came; dashed where it goes on",
];

/** The marks of the picture, each with its word. */
export function FeelLegend() {
  return (
    <p className="flex flex-wrap gap-x-5 text-sm text-soft" aria-hidden>
      <span>● used directly</span>
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
export function FeelPicture({ lanes: all, rateHz }: { lanes: readonly FeelLane[]; rateHz: number }) {
  const goTo = useGoTo();
  const [isWhole, setWhole] = useState(false);
  const lanes = isWhole ? all : all.slice(0, MAX_LANES);
  const drawing = useRef<SVGSVGElement>(null);
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
  const presses = all.reduce((sum, lane) => sum + lane.used + lane.lost, 0);
  const some =
    lanes.length < all.length ? ` (the first ${lanes.length} of ${countWords(all.length, "move")})` : "";
  const name = `Feel: ${countWords(presses, "press", "presses")}${some}`;
  return (
    <figure data-testid="feel-picture" className="mt-2">
      <figcaption className="text-sm text-soft">
        Frames earlier and later than each press came; {countWords(presses, "press", "presses")}, the tightest
        of each move first.
      </figcaption>
      <FeelLegend />
      <p className="min-h-7 text-sm" aria-live="polite" data-testid="feel-chosen">
        {stroke && own ? (
          <FrameLink take={stroke.take} frame={stroke.frame} words={`${own.name}: ${stroke.words}.`} />
        ) : (
          <span className="text-soft">Choose a press: the tape goes there.</span>
        )}
      </p>
      <svg
        ref={drawing}
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="mt-1 w-full max-w-[1100px] max-xl:[&_text.text-xs]:text-[14px] narrow:min-w-[720px]"
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
      {lanes.length < all.length && (
        <Button onClick={() => setWhole(true)}>Draw {all.length - lanes.length} more moves</Button>
      )}
      <SavePicture
        file="feel"
        name={name}
        makeSvg={() =>
          drawing.current ? pictureOf(drawing.current, name, inksOf(drawing.current), FILE_LEGEND) : undefined
        }
      />
    </figure>
  );
}
