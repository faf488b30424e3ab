/**
 * Returns the index of the first value above `limit` in an ascending list, from `from` up to `to`; `to` if
 * there is none. Binary search.
 */
export function firstAbove(
  list: ArrayLike<number>,
  limit: number,
  from = 0,
  to: number = list.length,
): number {
  let low = from;
  let high = to;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! > limit) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Returns the index of the range that contains a frame, among ranges that do not overlap; −1 if none does.
 */
export function stretchAt(from: readonly number[], to: readonly number[], frame: number): number {
  const k = firstAbove(from, frame) - 1;
  return k >= 0 && frame < to[k]! ? k : -1;
}
