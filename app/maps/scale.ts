/** The scale of a map of time: frames to px from its left edge. */
export interface MapScale {
  readonly from: number;
  readonly to: number;
  readonly widthPx: number;
  readonly pxPerFrame: number;
  readonly x: (frame: number) => number;
}

/** The width in which every map is drawn; it is scaled as a whole to the available width. */
export const MAP_WIDTH = 680;

/** Creates a scale of a range of frames, both ends included. */
export function createScale(from: number, to: number, widthPx = MAP_WIDTH): MapScale {
  const pxPerFrame = widthPx / Math.max(1, to - from + 1);
  return { from, to, widthPx, pxPerFrame, x: frame => (frame - from) * pxPerFrame };
}

/** Returns the distance of axis marks whose labels do not overlap, in frames. */
export function axisStep(pxPerFrame: number): number {
  for (const step of [1, 2, 5, 10, 20, 30, 60, 120, 300]) if (step * pxPerFrame >= 70) return step;
  return 600;
}
