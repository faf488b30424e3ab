/** The number of some values, their sum, and the sum of their squares. */
export interface Moments {
  readonly n: number;
  readonly sum: number;
  readonly squares: number;
}

/** The moments of values by group. */
export type ByGroup = ReadonlyMap<string, Moments>;

/** Returns the moments of values, each with the name of its group. */
export function momentsOf(values: Iterable<readonly [group: string, value: number]>): ByGroup {
  const sums = new Map<string, Moments>();
  for (const [group, value] of values) add(sums, group, { n: 1, sum: value, squares: value ** 2 });
  return sums;
}

/** Returns the moments of the values of several collections together. */
export function joinMoments(all: Iterable<ByGroup>): ByGroup {
  const sums = new Map<string, Moments>();
  for (const own of all) for (const [group, moments] of own) add(sums, group, moments);
  return sums;
}

function add(sums: Map<string, Moments>, group: string, { n, sum, squares }: Moments): void {
  const before = sums.get(group);
  sums.set(group, {
    n: (before?.n ?? 0) + n,
    sum: (before?.sum ?? 0) + sum,
    squares: (before?.squares ?? 0) + squares,
  });
}

/** A measured spread: from how many presses, in how many groups of like presses. */
export interface FoundSpread {
  readonly presses: number;
  readonly groups: number;
}

/** Returns the spread pooled within groups, each about its own mean; 0 without groups of two. Groups of one contribute nothing. */
export function pooledSpread(all: ByGroup): FoundSpread & { readonly deviation: number } {
  let [squares, presses, groups] = [0, 0, 0];
  for (const own of all.values()) {
    if (own.n < 2) continue;
    squares += Math.max(0, own.squares - own.sum ** 2 / own.n);
    presses += own.n;
    groups++;
  }
  const free = presses - groups;
  return { deviation: free > 0 ? Math.sqrt(squares / free) : 0, presses, groups };
}
