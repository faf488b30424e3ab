import type { MapScale } from "../maps/scale";
import type { FeelStroke } from "./model/feelLanes";

/** How far a stroke goes on where its end was not found. */
const OPEN_PX = 10;

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

/** The strokes of a lane one below the other, each chosen by a click on its line. */
export function FeelStrokes({
  strokes,
  scale,
  top,
  stepPx,
  widthPx,
  chosen,
  onChoose,
}: {
  strokes: readonly FeelStroke[];
  scale: MapScale;
  /** The middle of the first stroke, and the distance between two, in units of the drawing. */
  top: number;
  stepPx: number;
  widthPx: number;
  /** The place of the chosen stroke, −1 for none. */
  chosen: number;
  onChoose: (place: number) => void;
}) {
  return strokes.map((stroke, place) => (
    <g
      key={`${stroke.take} ${stroke.frame} ${stroke.look}`}
      className="cursor-pointer"
      onClick={() => onChoose(place)}
    >
      <rect x="0" y={top + place * stepPx - stepPx / 2} width={widthPx} height={stepPx} fill="transparent" />
      <Stroke stroke={stroke} scale={scale} y={top + place * stepPx} isChosen={place === chosen} />
    </g>
  ));
}

/** Returns the place that an arrow key moves to in a list of strokes; undefined for other keys. */
export function walkStrokes(key: string, chosen: number, count: number): number | undefined {
  const step = { ArrowDown: 1, ArrowUp: -1 }[key];
  if (step === undefined) return undefined;
  return Math.min(count - 1, Math.max(0, chosen < 0 ? 0 : chosen + step));
}
