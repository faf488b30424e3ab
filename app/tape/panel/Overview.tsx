import { useMemo } from "react";
import { useDesk, usePlayback } from "../../document/context";
import type { Evaluated } from "../../judging/judge";
import { cellsOf, overviewFrames } from "../model/outcomes";
import { laneWidth, type TapeView } from "../model/tapeView";

const WIDTH = 560;

/** The colour, top and height of each look. */
const LOOKS = {
  presses: { stroke: "stroke-bark", top: 14, tall: 5 },
  performed: { stroke: "stroke-moss", top: 4, tall: 5 },
  lost: { stroke: "stroke-foxglove", top: 4, tall: 8 },
} as const;

/** The overview of a take as one strip: presses, performances, losses, and the viewport. */
export function Overview({
  evaluated,
  view,
  onGo,
  label = "The whole take",
}: {
  evaluated: Evaluated;
  view: TapeView | undefined;
  onGo: (frame: number) => void;
  label?: string;
}) {
  const { judge } = useDesk();
  const { trace } = evaluated;
  const frame = usePlayback(state => state.frame);
  const paths = useMemo(() => {
    const outcomes = overviewFrames(judge.outcomesOf(evaluated));
    return (Object.keys(LOOKS) as (keyof typeof LOOKS)[]).map(look => {
      const { top, tall } = LOOKS[look];
      const cells = cellsOf(outcomes[look], evaluated.trace.frames, WIDTH);
      return { look, path: cells.map(cell => `M${cell + 0.5} ${top}v${tall}`).join("") };
    });
  }, [judge, evaluated]);
  const perFrame = WIDTH / Math.max(1, trace.frames);
  const shownFrames = view ? laneWidth(view) / view.pxPerFrame : trace.frames;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 22`}
      preserveAspectRatio="none"
      className="h-[22px] min-w-40 max-w-[560px] grow cursor-pointer rounded bg-sand"
      role="img"
      aria-label={label}
      onClick={event => {
        const box = event.currentTarget.getBoundingClientRect();
        onGo(Math.round(((event.clientX - box.left) / box.width) * trace.frames));
      }}
    >
      {paths.map(({ look, path }) => (
        <path key={look} d={path} strokeWidth="2" className={LOOKS[look].stroke} />
      ))}
      {view && (
        <rect
          x={view.firstFrame * perFrame + 1}
          y="1"
          width={Math.max(4, Math.min(trace.frames, shownFrames) * perFrame - 2)}
          height="20"
          rx="4"
          className="fill-transparent stroke-ink"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {view && <rect x={frame * perFrame} width="2" y="0" height="22" className="fill-dew" />}
    </svg>
  );
}
