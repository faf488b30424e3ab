import type { KeyboardEvent, PointerEvent } from "react";
import { dragKit } from "../document/dragKit";
import { useWorkbench } from "../document/workbenchContext";
import { keepTouch } from "../ui/keepTouch";
import { pointAt, toX, toY } from "./curveScale";

/** A handle or a point of the curve, moved by dragging or by keys. */
export function CurveGrip({
  label,
  at,
  onMove,
  onDelete,
}: {
  label: string;
  at: readonly [number, number];
  onMove: (x: number, y: number) => void;
  onDelete?: () => void;
}) {
  const workbench = useWorkbench();
  const onPointerDown = (event: PointerEvent<SVGCircleElement>) => {
    event.preventDefault();
    event.stopPropagation();
    const grip = event.currentTarget;
    grip.focus();
    const box = grip.ownerSVGElement!.getBoundingClientRect();
    dragKit(workbench, event, moved => {
      onMove(...pointAt(moved, box));
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.shiftKey ? 0.1 : 0.01;
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, by],
      ArrowDown: [0, -by],
    };
    const step = steps[event.key];
    if (event.key === "Delete" && onDelete) onDelete();
    else if (step) onMove(at[0] + step[0], at[1] + step[1]);
    else return;
    event.preventDefault();
  };
  return (
    <circle
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={at[1]}
      aria-valuetext={`${at[0].toFixed(2)} across, ${at[1].toFixed(2)} up`}
      cx={toX(at[0])}
      cy={toY(at[1])}
      r="6.5"
      strokeWidth="2"
      ref={keepTouch}
      className="cursor-move fill-leaf stroke-ink"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    />
  );
}
