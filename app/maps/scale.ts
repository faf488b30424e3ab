/** Frames to px on a map of time, from its left edge. */
export interface MapScale {
  readonly from: number;
  readonly to: number;
  readonly widthPx: number;
  readonly pxPerFrame: number;
  readonly x: (frame: number) => number;
}

/** The width every map is drawn in; it is scaled as a whole to the room there is. */
export const MAP_WIDTH = 680;

/** A scale that shows these frames, both ends included. */
export function createScale(from: number, to: number, widthPx = MAP_WIDTH): MapScale {
  const pxPerFrame = widthPx / Math.max(1, to - from + 1);
  return { from, to, widthPx, pxPerFrame, x: frame => (frame - from) * pxPerFrame };
}

/** A step between marks of an axis whose labels do not touch. Frames. */
export function axisStep(pxPerFrame: number): number {
  for (const step of [1, 2, 5, 10, 20, 30, 60, 120, 300]) if (step * pxPerFrame >= 70) return step;
  return 600;
}
