interface Item {
  readonly id: string;
}

const indices = new WeakMap<readonly Item[], ReadonlyMap<string, number>>();

/**
 * Returns the index of the first item with an id in a list of a program, −1 without one. The list is read once: lamps and meters of a
 * thousand rules ask on every frame.
 */
export function indexOfId(list: readonly Item[], id: string): number {
  let known = indices.get(list);
  if (!known) {
    known = new Map(list.map((item, k) => [item.id, k] as const).reverse());
    indices.set(list, known);
  }
  return known.get(id) ?? -1;
}
