import { useEffect, useMemo, useRef } from "react";
import type { StoreApi } from "zustand/vanilla";
import { usePlaybackControl } from "../../document/evaluationContext";
import { useJudging } from "../../judging/context";
import type { Evaluated } from "../../judging/judge";
import { overviewCells, type Shown } from "../model/outcomes";
import { laneWidth, type TapeView } from "../model/tapeView";

const WIDTH = 560;

/** The colour, top and height of each look. */
const LOOKS = {
  presses: { stroke: "stroke-bark", top: 14, tall: 5 },
  performed: { stroke: "stroke-moss", top: 4, tall: 5 },
  lost: { stroke: "stroke-foxglove", top: 4, tall: 8 },
} as const satisfies Record<Shown, object>;

/** The visible part of the tape and the playhead, drawn without a render. */
function Viewport({ views, frames }: { views: StoreApi<TapeView>; frames: number }) {
  const playback = usePlaybackControl();
  const box = useRef<SVGRectElement>(null);
  const head = useRef<SVGRectElement>(null);
  useEffect(() => {
    const perFrame = WIDTH / Math.max(1, frames);
    const place = (view: TapeView) => {
      const shownFrames = laneWidth(view) / view.pxPerFrame;
      const width = Math.max(4, Math.min(frames, shownFrames) * perFrame - 2);
      box.current?.setAttribute("x", String(view.firstFrame * perFrame + 1));
      box.current?.setAttribute("width", String(width));
    };
    const follow = ({ frame }: { readonly frame: number }) =>
      head.current?.setAttribute("x", String(frame * perFrame));
    place(views.getState());
    follow(playback.getState());
    const stops = [views.subscribe(place), playback.subscribe(follow)];
    return () => stops.forEach(stop => stop());
  }, [views, playback, frames]);
  return (
    <>
      <rect
        ref={box}
        y="1"
        height="20"
        rx="4"
        className="fill-transparent stroke-ink"
        strokeWidth="2"
        vectorEffect="non-scaling-stroke"
      />
      <rect ref={head} width="2" y="0" height="22" className="fill-dew" />
    </>
  );
}

/** The overview of a take as one strip: presses, performances, losses, and the viewport. */
export function Overview({
  evaluated,
  views,
  onGo,
  label = "The whole take",
}: {
  evaluated: Evaluated;
  /** The visible part of the tape; undefined while no tape is shown. */
  views: StoreApi<TapeView> | undefined;
  onGo: (frame: number) => void;
  label?: string;
}) {
  const { judge } = useJudging();
  const { trace } = evaluated;
  const paths = useMemo(() => {
    const cells = overviewCells(judge.outcomesOf(evaluated), evaluated.trace.frames, WIDTH);
    return (Object.keys(LOOKS) as Shown[]).map(look => {
      const { top, tall } = LOOKS[look];
      return { look, path: cells[look].map(cell => `M${cell + 0.5} ${top}v${tall}`).join("") };
    });
  }, [judge, evaluated]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 22`}
      preserveAspectRatio="none"
      className="h-[22px] min-w-20 basis-20 max-w-[560px] grow cursor-pointer rounded bg-sand"
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
      {views && <Viewport views={views} frames={trace.frames} />}
    </svg>
  );
}
