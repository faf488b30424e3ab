import type { InputColumns } from "../../input/inputColumns";

/** A press of a control in columns: the indices and frames of its two edges. */
export interface ColumnPress {
  readonly control: number;
  readonly downAt: number;
  /** −1 if it is never released; then `up` is the number of frames. */
  readonly upAt: number;
  readonly down: number;
  readonly up: number;
  /** The smallest and largest shift that touches no neighbour and stays in the take. */
  readonly least: number;
  readonly most: number;
}

/**
 * Returns every press of columns with its room between neighbours on the same control, in order of the press
 * edge.
 */
export function listPresses({ controlFrame, controlChange, frames }: InputColumns): ColumnPress[] {
  const presses: ColumnPress[] = [];
  const edgesOf = new Map<number, number[]>();
  for (let k = 0; k < controlFrame.length; k++) {
    const control = controlChange[k]! >> 1;
    const edges = edgesOf.get(control);
    if (edges) edges.push(k);
    else edgesOf.set(control, [k]);
  }
  for (const [control, edges] of edgesOf)
    for (let e = 0; e < edges.length; e += 2) {
      const downAt = edges[e]!;
      const upAt = edges[e + 1] ?? -1;
      const down = controlFrame[downAt]!;
      const up = upAt < 0 ? frames : controlFrame[upAt]!;
      const before = e === 0 ? -1 : controlFrame[edges[e - 1]!]!;
      const after = edges[e + 2] === undefined ? frames : controlFrame[edges[e + 2]!]!;
      // For a press that is never released only the press edge moves.
      const most = upAt < 0 ? frames - 1 - down : after - 1 - up;
      presses.push({ control, downAt, upAt, down, up, least: before + 1 - down, most });
    }
  return presses.sort((a, b) => a.down - b.down || a.control - b.control);
}

/**
 * Returns columns with one press shifted by a number of frames; entries stay in order of frame, then of
 * change. One pass, since it is called for every shift of every press.
 */
export function shiftPress(columns: InputColumns, press: ColumnPress, by: number): InputColumns {
  const { controlFrame: was, controlChange: wasChange } = columns;
  const { downAt, upAt } = press;
  const frame = new Uint32Array(was.length);
  const change = new Uint32Array(was.length);
  const moved = upAt < 0 ? [downAt] : [downAt, upAt];
  let next = 0;
  let to = 0;
  const put = (k: number, at: number) => {
    frame[to] = at;
    change[to++] = wasChange[k]!;
  };
  for (let k = 0; k < was.length; k++) {
    if (k === downAt || k === upAt) continue;
    for (; next < moved.length; next++) {
      const own = moved[next]!;
      const at = was[own]! + by;
      if (at > was[k]! || (at === was[k]! && wasChange[own]! > wasChange[k]!)) break;
      put(own, at);
    }
    put(k, was[k]!);
  }
  for (; next < moved.length; next++) put(moved[next]!, was[moved[next]!]! + by);
  return { ...columns, controlFrame: frame, controlChange: change };
}
