/** How a dot on a map looks: whole, hollow (saved), missed (hollow in foxglove), lost (a broken ring). */
export type DotLook = "whole" | "saved" | "missed" | "lost";

export interface MapDot {
  readonly x: number;
  readonly y: number;
  readonly look: DotLook;
}

/** More dots than this are only a blot; the counts beside a map are of all. */
const MOST_DOTS = 600;
const RADIUS = 4;

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
  return `M${x} ${y}m-${RADIUS} 0a${RADIUS} ${RADIUS} 0 1 0 ${2 * RADIUS} 0a${RADIUS} ${RADIUS} 0 1 0 -${2 * RADIUS} 0`;
}

/** Real presses as dots. All of one look are one path, so that hundreds move with a number under the hand. */
export function Dots({ dots }: { dots: readonly MapDot[] }) {
  const shown = dots.slice(0, MOST_DOTS);
  return (
    <g aria-hidden>
      {(Object.keys(CLASSES) as DotLook[]).map(look => {
        const path = shown
          .filter(dot => dot.look === look)
          .map(pathOf)
          .join("");
        return path === "" ? null : <path key={look} d={path} strokeWidth="2" className={CLASSES[look]} />;
      })}
    </g>
  );
}
