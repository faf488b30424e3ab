import type { ReactNode, SVGProps } from "react";
import { formatFound } from "./countWords";
import { MAP_WIDTH, type MapScale } from "./scale";

/** A map of time: a caption, a drawing to scale, and the parts below it. */
export function MapFigure({
  testId,
  caption,
  label,
  heightPx,
  topPx = 0,
  role = "group",
  drawing,
  children,
  ...pointer
}: {
  testId: string;
  caption: ReactNode;
  /** The text equivalent of the drawing. */
  label: string;
  heightPx: number;
  /** The upper edge of the drawn part. */
  topPx?: number;
  /** `img` for a drawing without controls. */
  role?: "group" | "img";
  drawing: ReactNode;
  /** The parts below the drawing. */
  children?: ReactNode;
} & Pick<SVGProps<SVGSVGElement>, "onPointerMove" | "onPointerLeave">) {
  return (
    <figure className="mt-5" data-testid={testId}>
      <figcaption className="mb-1 text-sm text-soft">{caption}</figcaption>
      <svg
        viewBox={`0 ${topPx} ${MAP_WIDTH} ${heightPx - topPx}`}
        className="w-full max-w-[720px]"
        role={role}
        aria-label={label}
        {...pointer}
      >
        {drawing}
      </svg>
      {children}
    </figure>
  );
}

/** The counts of a map in words: the number found, the kept ones in ink, the lost ones in foxglove. */
export function CountCaption({
  found,
  takes,
  one,
  many,
  empty,
  kept,
  lost,
  rest = "",
}: {
  found: number;
  /** The number of takes searched. */
  takes: number;
  one: string;
  many: string;
  /** The caption if none was found. */
  empty: string;
  kept: ReactNode;
  lost: readonly string[];
  rest?: string;
}) {
  if (found === 0) return empty;
  return (
    <>
      {formatFound(found, one, many, takes)}
      <b className="text-ink">{kept}</b>
      {lost.length > 0 && <b className="text-foxglove">{lost.map(words => ` · ${words}`).join("")}</b>}
      {rest}
    </>
  );
}

/** A range of frames on the strip of a map, from `from` up to, but without, `to`. */
export function Stretch({
  scale,
  from,
  to,
  y,
  height,
  look,
  fill,
}: {
  scale: MapScale;
  from: number;
  to: number;
  y: number;
  height: number;
  look?: string;
  /** A paint such as a hatch, in place of a look. */
  fill?: string | undefined;
}) {
  // The fills alone hardly differ from the paper.
  const edge = look === "fill-lichen" ? "stroke-lichen-ink" : look === "fill-fern" ? "stroke-moss" : "";
  return (
    <rect
      x={scale.x(from)}
      y={y}
      width={Math.max(0, scale.x(to) - scale.x(from))}
      height={height}
      className={`${look ?? ""} ${edge}`}
      fill={fill}
    />
  );
}
