/** Returns the code of a notch of the wheel in the direction in which it turned most; undefined if it did not turn. */
export function wheelCode({ deltaX, deltaY }: Pick<WheelEvent, "deltaX" | "deltaY">): string | undefined {
  if (deltaX === 0 && deltaY === 0) return undefined;
  if (Math.abs(deltaX) > Math.abs(deltaY)) return deltaX > 0 ? "wheel:right" : "wheel:left";
  return deltaY > 0 ? "wheel:down" : "wheel:up";
}
