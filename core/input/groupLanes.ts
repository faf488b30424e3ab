/** Groups changes into lanes by the id they belong to, each lane in the order of the changes. */
export function groupLanes<V>(
  changes: Iterable<readonly [id: string, x: number, value: V]>,
): Record<string, [number, V][]> {
  const lanes = new Map<string, [number, V][]>();
  for (const [id, x, value] of changes) {
    const lane = lanes.get(id);
    if (lane) lane.push([x, value]);
    else lanes.set(id, [[x, value]]);
  }
  return Object.fromEntries(lanes);
}
