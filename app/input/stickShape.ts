import type { Stick } from "#core";

/** The values of a stick's four controls, each 0 to 1. */
export interface Sides {
  readonly up: number;
  readonly down: number;
  readonly left: number;
  readonly right: number;
}

const clamp = (value: number) => Math.max(0, Math.min(1, value));

/**
 * Returns the values that a position of a stick gives its four controls. `x` is from −1 (left) to 1 (right), `y` from −1
 * (down) to 1 (up). With neither `zone` nor `ways` each control has its own half-axis. Otherwise the sector of the
 * position, one of four or eight equal ones, decides which of them have a value, and the zone how large it is: the distance
 * from the centre for a circle, the larger half-axis for a square. A circle without `ways` has eight sectors.
 */
export function shapeStick(
  x: number,
  y: number,
  { zone = "axis", ways }: Pick<Stick, "zone" | "ways">,
): Sides {
  if (zone === "axis" && ways === undefined)
    return { up: clamp(y), down: clamp(-y), left: clamp(-x), right: clamp(x) };
  const size = clamp(zone === "circle" ? Math.hypot(x, y) : Math.max(Math.abs(x), Math.abs(y)));
  const turn = (2 * Math.PI) / (ways ?? 8);
  const angle = Math.round(Math.atan2(y, x) / turn) * turn;
  // A sector on the diagonal has two sides; the cosine of the others is 0 but for rounding.
  const side = (along: number) => (along > 0.1 ? size : 0);
  return {
    up: side(Math.sin(angle)),
    down: side(-Math.sin(angle)),
    left: side(-Math.cos(angle)),
    right: side(Math.cos(angle)),
  };
}
