import { useMemo } from "react";
import { notes, type Trace } from "#core";
import { laneWidth, type TapeView } from "../model/tapeView";
import { usePlayback } from "../../document/context";

const WIDTH = 560;
const MOST_MARKS = 1500;

const LOOKS = ["press", "performed", "lost"] as const;
type MarkLook = (typeof LOOKS)[number];

const CLASSES: Readonly<Record<MarkLook, string>> = {
  press: "stroke-bark",
  performed: "stroke-moss",
  lost: "stroke-foxglove",
};

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
  const frame = usePlayback(state => state.frame);
  const paths = useMemo(() => {
    const found: Record<MarkLook, string[]> = { press: [], performed: [], lost: [] };
    const mark = (look: MarkLook, frame: number) => {
      if (found[look].length >= MOST_MARKS) return;
      const x = ((frame / Math.max(1, trace.frames)) * WIDTH).toFixed(1);
      found[look].push(`M${x} ${look === "press" ? 14 : 4}v${look === "lost" ? 8 : 5}`);
    };
    for (let i = 0; i < trace.count; i++) {
      if (trace.kind[i] === notes.EDGE && trace.payload[trace.at[i]!] === 1) mark("press", trace.frame[i]!);
      if (trace.kind[i] === notes.PERFORMED) mark("performed", trace.frame[i]!);
      if (trace.kind[i] === notes.LOST && trace.payload[trace.at[i]! + 1] !== notes.BEATEN)
        mark("lost", trace.frame[i]!);
    }
    return LOOKS.map(look => ({ look, path: found[look].join("") }));
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
      {paths.map(({ look, path }) => (
        <path key={look} d={path} strokeWidth="2" className={CLASSES[look]} />
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
