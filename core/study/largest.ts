/**
 * Returns the largest of any number of values, at least `least`. Unlike Math.max with spread, it has no limit
 * on the list's length.
 */
export function largest(values: Iterable<number>, least: number): number {
  let most = least;
  for (const value of values) if (value > most) most = value;
  return most;
}
