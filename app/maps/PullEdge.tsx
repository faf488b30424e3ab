import type { KeyboardEvent, PointerEvent } from "react";
import { parseFrames, readAt, writeAt, type PathStep } from "#core";
import { useWorkbench } from "../document/workbenchContext";
import type { Workbench } from "../document/workbench";
import { dragKit } from "../document/dragKit";
import { keepTouch } from "../ui/keepTouch";
import { stepLength } from "../ui/lengthText";
import type { MapScale } from "./scale";

/** A number of the kit represented by an edge on a map. */
export interface EdgeTarget {
  readonly path: readonly PathStep[];
  readonly rounding: "atLeast" | "atMost";
  readonly least: number;
  readonly label: string;
}

/** Sets a length of the kit to a number of frames, in the unit it is written in. */
export function setFrames(workbench: Workbench, target: EdgeTarget, frames: number): void {
  const { kit } = workbench.getState();
  if (!kit) return;
  const found = readAt(kit, target.path);
  const current = typeof found === "string" ? found : "0f";
  const by = frames - (parseFrames(current, kit.rate, target.rounding) ?? 0);
  const next = stepLength(current, by, kit.rate, target.rounding, target.least);
  if (next !== current) workbench.editKit(`${target.label} ${next}`, now => writeAt(now, target.path, next));
}

/**
 * The draggable end of a window on a map, also movable by keys. `at` is its position on the scale in frames,
 * `frames` the length it represents; `direction` is −1 if the length grows to the left.
 */
export function PullEdge({
  target,
  scale,
  at,
  frames,
  top,
  bottom,
  direction = 1,
}: {
  target: EdgeTarget;
  scale: MapScale;
  at: number;
  frames: number;
  top: number;
  bottom: number;
  direction?: 1 | -1;
}) {
  const workbench = useWorkbench();
  const x = scale.x(at);
  const middle = (top + bottom) / 2;
  const onPointerDown = (event: PointerEvent<SVGGElement>) => {
    event.preventDefault();
    const grip = event.currentTarget;
    grip.focus();
    const box = grip.ownerSVGElement!.getBoundingClientRect();
    const pxPerFrame = (scale.pxPerFrame * box.width) / grip.ownerSVGElement!.viewBox.baseVal.width;
    const fromX = event.clientX;
    dragKit(workbench, event, moved => {
      const by = Math.round((moved.clientX - fromX) / pxPerFrame) * direction;
      setFrames(workbench, target, Math.max(target.least, frames + by));
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const steps: Record<string, number> = { ArrowRight: 1, ArrowLeft: -1, ArrowUp: 1, ArrowDown: -1 };
    const by = steps[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const isSideways = event.key === "ArrowRight" || event.key === "ArrowLeft";
    const way = isSideways ? direction : 1;
    setFrames(workbench, target, Math.max(target.least, frames + by * way * (event.shiftKey ? 10 : 1)));
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${target.label} on the map`}
      aria-valuenow={frames}
      aria-valuemin={target.least}
      aria-valuetext={`${frames}f`}
      ref={keepTouch}
      className="cursor-ew-resize"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    >
      <rect x={x - 8} y={top} width="16" height={bottom - top} fill="transparent" />
      <rect x={x - 1.25} y={top} width="2.5" height={bottom - top} className="fill-ink" />
      <rect x={x - 6} y={middle - 10} width="12" height="20" rx="5" className="fill-ink" />
      <rect x={x - 2.5} y={middle - 5} width="1.4" height="10" className="fill-leaf" />
      <rect x={x + 1.1} y={middle - 5} width="1.4" height="10" className="fill-leaf" />
    </g>
  );
}
