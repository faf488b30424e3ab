import { useMemo } from "react";
import { useStore } from "zustand";
import { notes, type Trace } from "#core";
import { playhead } from "../store/playhead";
import { laneWidth, type TapeView } from "./tapeView";

const WIDTH = 560;

/** The whole take in one strip: presses, what was performed, what was lost, and the window one looks at. */
export function Overview({
  trace,
  view,
  onGo,
  label = "The whole take",
}: {
  trace: Trace;
  view: TapeView | undefined;
  onGo: (frame: number) => void;
  label?: string;
}) {
  const frame = useStore(playhead, state => state.frame);
  const marks = useMemo(() => {
    const found: { x: number; look: "press" | "performed" | "lost" }[] = [];
    for (let i = 0; i < trace.count; i++) {
      const x = (trace.frame[i]! / Math.max(1, trace.frames)) * WIDTH;
      if (trace.kind[i] === notes.EDGE && trace.payload[trace.at[i]!] === 1) found.push({ x, look: "press" });
      if (trace.kind[i] === notes.PERFORMED) found.push({ x, look: "performed" });
      if (trace.kind[i] === notes.LOST) found.push({ x, look: "lost" });
    }
    return found.slice(0, 2000);
  }, [trace]);
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
      {marks.map((mark, i) => (
        <rect
          key={i}
          x={mark.x}
          width="2"
          y={mark.look === "press" ? 14 : 4}
          height={mark.look === "lost" ? 8 : 5}
          className={
            mark.look === "press" ? "fill-bark" : mark.look === "lost" ? "fill-foxglove" : "fill-moss"
          }
        />
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
