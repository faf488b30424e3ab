/** A point of a curve: x from 0 to 1, y usually so; outputs may lie outside. */
export interface CurvePoint {
  readonly x: number;
  readonly y: number;
}

/** Returns slopes at the points that prevent overshoot. Source: Fritsch and Carlson, 1980. */
function monotoneSlopes(points: readonly CurvePoint[]): number[] {
  const last = points.length - 1;
  const secants: number[] = [];
  for (let i = 0; i < last; i++) {
    secants.push((points[i + 1]!.y - points[i]!.y) / (points[i + 1]!.x - points[i]!.x));
  }
  const slopes = points.map((_, i) => {
    if (i === 0) return secants[0]!;
    if (i === last) return secants[last - 1]!;
    return secants[i - 1]! * secants[i]! <= 0 ? 0 : (secants[i - 1]! + secants[i]!) / 2;
  });
  for (let i = 0; i < last; i++) {
    const secant = secants[i]!;
    if (secant === 0) {
      slopes[i] = slopes[i + 1] = 0;
      continue;
    }
    const a = slopes[i]! / secant;
    const b = slopes[i + 1]! / secant;
    const length = Math.hypot(a, b);
    if (length > 3) {
      slopes[i] = (3 * a * secant) / length;
      slopes[i + 1] = (3 * b * secant) / length;
    }
  }
  return slopes;
}

function hermite(a: CurvePoint, b: CurvePoint, slopeA: number, slopeB: number, t: number): number {
  const width = b.x - a.x;
  const t2 = t * t;
  const t3 = t2 * t;
  return (
    (2 * t3 - 3 * t2 + 1) * a.y +
    (t3 - 2 * t2 + t) * width * slopeA +
    (3 * t2 - 2 * t3) * b.y +
    (t3 - t2) * width * slopeB
  );
}

/**
 * Returns a smooth curve through points as CSS `linear()`, readable by other programs. `points`: at least
 * two, x strictly increasing from 0 to 1. `perSpan`: stops per span, 1 or more (1 gives straight lines).
 * Never overshoots between points. Throws a RangeError on fewer points or an x that does not increase.
 */
export function formatSmoothCurve(points: readonly CurvePoint[], perSpan = 8): string {
  if (points.length < 2) throw new Error("a curve takes at least two points");
  for (let i = 1; i < points.length; i++) {
    if (!(points[i]!.x > points[i - 1]!.x)) throw new Error("x must rise from point to point");
  }
  const slopes = monotoneSlopes(points);
  const stops: string[] = [];
  const round = (value: number, digits: number) => String(Number(value.toFixed(digits)));
  for (let i = 0; i + 1 < points.length; i++) {
    const a = points[i]!;
    const b = points[i + 1]!;
    for (let k = 0; k < perSpan; k++) {
      const t = k / perSpan;
      const y = hermite(a, b, slopes[i]!, slopes[i + 1]!, t);
      stops.push(`${round(y, 5)} ${round((a.x + t * (b.x - a.x)) * 100, 3)}%`);
    }
  }
  const end = points.at(-1)!;
  stops.push(`${round(end.y, 5)} ${round(end.x * 100, 3)}%`);
  return `linear(${stops.join(", ")})`;
}
