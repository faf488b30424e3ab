/** The largest of any number of values, at least `least`: a list may be longer than a call has room for. */
export function largest(values: Iterable<number>, least: number): number {
  let most = least;
  for (const value of values) if (value > most) most = value;
  return most;
}
