import { useId } from "react";
import { formatMs } from "#core";
import { compileOnce } from "../store/workbench";
import { useWorkbench } from "../store/useWorkbench";
import { listPressLengths, listStretches } from "./pressLengths";

const WIDTH = 680;
const STRIP_Y = 34;
const STRIP_HEIGHT = 62;
const DOT_ROWS = 5;
/** More dots than this are only a blot; the counts beside the map are of all presses. */
const MOST_DOTS = 600;

const PX_PER_LETTER = 6.4;

/** As much of a label as fits above its stretch; nothing where not even a word would. The rule list has the whole name. */
function cutToWidth(label: string, widthPx: number): string {
  const letters = Math.floor((widthPx - 8) / PX_PER_LETTER);
  if (label.length <= letters) return label;
  return letters < 4 ? "" : `${label.slice(0, letters - 1)}…`;
}

/** What each length of press on a control ends in, to scale, with the real presses of all takes as dots. */
export function PressLengthMap({ controlId }: { controlId: string }) {
  const hatchId = useId();
  const kit = useWorkbench(state => state.kit);
  const takes = useWorkbench(state => state.takes);
  const { program } = compileOnce(kit);
  const control = program?.controls.findIndex(item => item.id === controlId) ?? -1;
  if (!kit || !program || control < 0) return null;
  const lengths = takes.flatMap(take => listPressLengths(program, take, control));
  const limits = listStretches(program, control, 600).map(stretch => stretch.from);
  const upTo = Math.min(
    600,
    Math.max(24, (limits.at(-1) ?? 0) + 12, ...lengths.map(length => Math.min(length, 120) + 2)),
  );
  const stretches = listStretches(program, control, upTo);
  const scale = WIDTH / (upTo + 1);
  const nameOf = (id: string) => kit.patterns.find(pattern => pattern.id === id)?.name ?? id;
  const silent = lengths.filter(length =>
    stretches.some(s => s.patternIds.length === 0 && s.from <= length && length <= s.to),
  ).length;
  const step = upTo > 240 ? 60 : upTo > 120 ? 30 : upTo > 60 ? 20 : upTo > 30 ? 10 : 5;
  return (
    <figure className="mt-6">
      <figcaption className="mb-1 text-sm text-soft">
        {lengths.length === 0 ? (
          "No presses recorded yet: play, and they appear here as dots."
        ) : (
          <>
            {lengths.length} presses in {takes.length} {takes.length === 1 ? "take" : "takes"}:{" "}
            <b className={silent > 0 ? "text-foxglove" : "text-ink"}>
              {silent > 0 ? `${silent} ended in nothing` : "every one was answered"}
            </b>
          </>
        )}
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} 134`}
        className="w-full max-w-[720px]"
        role="img"
        aria-label="What each length of press ends in"
      >
        <defs>
          <pattern
            id={hatchId}
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="2" height="7" className="fill-line" />
          </pattern>
        </defs>
        {stretches.map(stretch => {
          const x = stretch.from * scale;
          const width = (stretch.to - stretch.from + 1) * scale;
          const isDead = stretch.patternIds.length === 0;
          return (
            <g key={stretch.from}>
              <rect
                x={x}
                y={STRIP_Y}
                width={width}
                height={STRIP_HEIGHT}
                className={isDead ? "" : stretch.patternIds.length > 1 ? "fill-lichen" : "fill-fern"}
                fill={isDead ? `url(#${hatchId})` : undefined}
              />
              <rect x={x} y={STRIP_Y - 6} width="2" height={STRIP_HEIGHT + 10} className="fill-ink" />
              <text x={x + 6} y={STRIP_Y - 10} className={`text-xs ${isDead ? "fill-foxglove" : "fill-ink"}`}>
                {cutToWidth(
                  isDead
                    ? `${stretch.from}–${stretch.to}f silent`
                    : stretch.patternIds.map(nameOf).join(" and "),
                  width,
                )}
              </text>
            </g>
          );
        })}
        {lengths
          .slice(0, MOST_DOTS)
          .filter(length => length <= upTo)
          .map((length, i) => (
            <circle
              key={i}
              cx={(length + 0.5) * scale}
              cy={STRIP_Y + 9 + (i % DOT_ROWS) * 11}
              r="4"
              className="fill-moss-deep"
            />
          ))}
        {Array.from({ length: Math.floor(upTo / step) + 1 }, (_, k) => k * step).map(frames => (
          <g key={frames}>
            <rect
              x={frames * scale}
              y={STRIP_Y + STRIP_HEIGHT + 4}
              width="1"
              height="5"
              className="fill-soft"
            />
            <text
              x={frames * scale + 3}
              y={STRIP_Y + STRIP_HEIGHT + 20}
              className="fill-soft font-mono text-xs"
            >
              {frames}f
            </text>
            <text
              x={frames * scale + 3}
              y={STRIP_Y + STRIP_HEIGHT + 34}
              className="fill-soft font-mono text-xs"
            >
              {formatMs(frames, kit.rate)}
            </text>
          </g>
        ))}
      </svg>
    </figure>
  );
}
