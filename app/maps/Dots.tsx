import { useState, type KeyboardEvent, type MouseEvent } from "react";
import { useChecking } from "../document/checksContext";
import { usePlaybackControl } from "../document/evaluationContext";
import { useWorkbench } from "../document/workbenchContext";
import { DOT_RADIUS, pileDots, type DotArea, type DotLook, type MapDot, type PlacedDot } from "./pileDots";

const CLASSES: Readonly<Record<DotLook, string>> = {
  whole: "fill-moss-deep stroke-moss-deep",
  saved: "fill-leaf stroke-moss-deep",
  missed: "fill-leaf stroke-foxglove",
  lost: "fill-transparent stroke-foxglove",
};

function pathOf(dot: MapDot): string {
  const x = dot.x.toFixed(1);
  const y = dot.y.toFixed(1);
  if (dot.look === "lost")
    return `M${(dot.x - 3).toFixed(1)} ${(dot.y + 4).toFixed(1)}a4.8 4.8 0 1 1 6.5 -0.4`;
  const r = DOT_RADIUS;
  return `M${x} ${y}m-${r} 0a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 -${2 * r} 0`;
}

/** The distance within which a dot is chosen, in units of the map. */
const REACH = 9;

/** Returns the dots that can be chosen, from left to right. */
const placed = (dots: readonly MapDot[]) =>
  dots.filter(dot => dot.place).sort((a, b) => a.x - b.x || a.y - b.y);

/** Lets a dot be chosen by a click nearby or by arrow keys; M and N create a check from it. */
function useChoosing(dots: readonly MapDot[]) {
  const workbench = useWorkbench();
  const playback = usePlaybackControl();
  const checking = useChecking();
  const [chosen, setChosen] = useState<number>();
  const open = (at: number) => {
    const place = dots[at]?.place;
    if (!place) return;
    setChosen(at);
    workbench.openTake(place.of.take.id);
    playback.goTo(place.frame);
  };
  const choose = (event: MouseEvent<SVGGElement>) => {
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      event.currentTarget.getScreenCTM()?.inverse(),
    );
    const offs = dots.map(dot => Math.hypot(dot.x - x, dot.y - y));
    const nearest = Math.min(...offs);
    if (nearest <= REACH) open(offs.indexOf(nearest));
  };
  const walk = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const must = { KeyM: checking.mustHappen, KeyN: checking.mustNever }[event.code];
    if (event.ctrlKey || event.metaKey || event.altKey || (step === undefined && !must)) return;
    event.preventDefault();
    event.stopPropagation();
    const at = chosen ?? (step === -1 ? dots.length : -1);
    if (step !== undefined) return open(Math.min(dots.length - 1, Math.max(0, at + step)));
    const place = dots[at]?.place;
    if (place) must?.(place.note, place.of);
  };
  return { chosen: chosen === undefined ? undefined : dots[chosen], choose, walk };
}

/**
 * Real presses as dots, piled up in an area, with counts of those it has no space for. All dots of one look are one path, so that
 * hundreds move at once during a drag. Dots with a source move the tape there, by a click or by arrow keys.
 */
export function Dots({ dots: all, area }: { dots: readonly PlacedDot[]; area: DotArea }) {
  const { dots, counts } = pileDots(all, area);
  const { chosen, choose, walk } = useChoosing(placed(dots));
  const isOpen = dots.some(dot => dot.place);
  return (
    <g
      {...(isOpen
        ? {
            tabIndex: 0,
            role: "group",
            "aria-label":
              "Presses on the map: arrows go through them and the tape follows; M: add a check that its result must happen; N: that it must never happen",
            onClick: choose,
            onKeyDown: walk,
            className: "cursor-pointer",
          }
        : { "aria-hidden": true })}
    >
      {isOpen && <title>Choose a press: the tape goes there. M: it must happen so. N: it must never.</title>}
      {(Object.keys(CLASSES) as DotLook[]).map(look => {
        const path = dots
          .filter(dot => dot.look === look && !dot.isCounted)
          .map(pathOf)
          .join("");
        return path === "" ? null : <path key={look} d={path} strokeWidth="2" className={CLASSES[look]} />;
      })}
      {counts.map(({ x, y, count }) => (
        <text
          key={x}
          x={x}
          y={y + 4}
          textAnchor="middle"
          strokeWidth="4"
          strokeLinejoin="round"
          paintOrder="stroke"
          className="fill-ink stroke-leaf font-mono text-xs"
        >
          +{count}
        </text>
      ))}
      {chosen && (
        <circle
          cx={chosen.x}
          cy={chosen.y}
          r="8"
          fill="none"
          strokeWidth="2"
          className="stroke-ink"
          data-testid="chosen-dot"
        />
      )}
    </g>
  );
}
