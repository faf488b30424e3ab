/** The first place in a rising list whose value is above `limit`; its length when there is none. In time that grows with its log. */
export function firstAbove(list: ArrayLike<number>, limit: number, from = 0): number {
  let low = from;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! > limit) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The stretch that a frame lies in, of stretches that do not overlap; −1 when it lies in none. */
export function stretchAt(from: readonly number[], to: readonly number[], frame: number): number {
  const k = firstAbove(from, frame) - 1;
  return k >= 0 && frame < to[k]! ? k : -1;
}
