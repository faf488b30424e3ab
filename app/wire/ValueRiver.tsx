import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from "react";
import { indexOfId, type Control } from "#core";
import { setThresholds } from "../edits/controlEdits";
import { keepTouch } from "../ui/keepTouch";
import { dragKit } from "../document/dragKit";
import { useWorkbench } from "../document/workbenchContext";
import { usePad } from "../input/context";

const WIDTH = 168;
const HEIGHT = 40;
const PAD = 4;
/** The length of the past that is shown. */
const PAST_SECONDS = 3;

const yOf = (value: number) => HEIGHT - PAD - value * (HEIGHT - 2 * PAD);

/** Draws the last seconds of a control's value into a polyline on every stepped frame, without a render. */
function useTrail(controlId: string) {
  const pad = usePad();
  const line = useRef<SVGPolylineElement>(null);
  useEffect(() => {
    let past: number[] = [];
    let last = -1;
    let drawn = "";
    /** The number of last frames of one value; a line that is flat from end to end stays. */
    let flat = 0;
    return pad.subscribe(({ session, frame }) => {
      const c = session ? indexOfId(session.program.controls, controlId) : -1;
      if (!session || c < 0 || frame === last) return;
      const most = PAST_SECONDS * session.program.rateHz;
      if (frame < last) past = [];
      flat = frame > last && session.values[c] === past.at(-1) ? flat + frame - last : 0;
      if (flat > most && past.length === most) {
        last = frame;
        return;
      }
      for (let f = Math.max(last + 1, frame - most); f <= frame; f++) past.push(session.values[c]!);
      past = past.slice(-most);
      last = frame;
      const step = (WIDTH - 10) / most;
      const from = WIDTH - 10 - (past.length - 1) * step;
      // Only corners are points; an unchanged line is not drawn again.
      const points = past.flatMap((value, k) =>
        value === past[k - 1] && value === past[k + 1]
          ? []
          : [`${(from + k * step).toFixed(1)},${yOf(value).toFixed(1)}`],
      );
      const next = points.join(" ");
      if (next !== drawn) line.current?.setAttribute("points", next);
      drawn = next;
    });
  }, [pad, controlId]);
  return line;
}

/** One of the two thresholds, a line that can be dragged up and down or stepped by keys. */
function PointLine({ control, which }: { control: Control; which: "pressAt" | "releaseAt" }) {
  const workbench = useWorkbench();
  const value = control[which] ?? (which === "pressAt" ? 0.5 : Math.min(0.4, control.pressAt ?? 0.5));
  const words = which === "pressAt" ? "Press point" : "Release point";
  const set = (next: number) =>
    workbench.editKit(`${words.toLowerCase()} of ${control.name}`, kit =>
      setThresholds(kit, [control.id], which, next),
    );
  const onPointerDown = (event: PointerEvent<SVGGElement>) => {
    event.preventDefault();
    const line = event.currentTarget;
    const box = line.ownerSVGElement!.getBoundingClientRect();
    dragKit(workbench, event, moved => {
      const y = ((moved.clientY - box.top) / box.height) * HEIGHT;
      set((HEIGHT - PAD - y) / (HEIGHT - 2 * PAD));
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 0.01, ArrowDown: -0.01, PageUp: 0.1, PageDown: -0.1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set(value + by);
  };
  const y = yOf(value);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${words} of ${control.name}`}
      aria-orientation="vertical"
      aria-valuemin={0.01}
      aria-valuemax={1}
      aria-valuenow={value}
      ref={keepTouch}
      className="cursor-ns-resize"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    >
      <rect x="0" y={y - 5} width={WIDTH} height="10" fill="transparent" />
      <line
        x1="0"
        x2={WIDTH}
        y1={y}
        y2={y}
        className="stroke-ink"
        strokeWidth="1.5"
        strokeDasharray={which === "pressAt" ? undefined : "3 3"}
      />
      <path
        d={which === "pressAt" ? `M${WIDTH} ${y}l-8 -5v10z` : `M${WIDTH - 1} ${y}l-7 -4.4v8.8z`}
        className={which === "pressAt" ? "fill-ink" : "fill-leaf stroke-ink"}
      />
    </g>
  );
}

/** A control's value over the last seconds, with its press and release thresholds. */
export function ValueRiver({ control }: { control: Control }) {
  const line = useTrail(control.id);
  const press = control.pressAt ?? 0.5;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-[30px] w-[126px] shrink-0 rounded-md bg-leaf"
      role="group"
      aria-label={`Value of ${control.name}, pressed from ${press}`}
    >
      <polyline ref={line} fill="none" strokeWidth="2" className="stroke-dew" />
      <PointLine control={control} which="releaseAt" />
      <PointLine control={control} which="pressAt" />
    </svg>
  );
}
