import type { InputColumns } from "../../input/inputColumns";

/** A press of a control as it lies in columns: the places of its two edges, and their frames. */
export interface ColumnPress {
  readonly control: number;
  readonly downAt: number;
  /** −1 where it is never let go; then `up` is the number of frames. */
  readonly upAt: number;
  readonly down: number;
  readonly up: number;
  /** The first and the last number of frames by which it can be moved without touching its neighbours or leaving the take. */
  readonly least: number;
  readonly most: number;
}

/** Every press of columns with the room it has between its neighbours on the same control, in order of its press edge. */
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
      // A press that is never let go moves its beginning alone.
      const most = upAt < 0 ? frames - 1 - down : after - 1 - up;
      presses.push({ control, downAt, upAt, down, up, least: before + 1 - down, most });
    }
  return presses.sort((a, b) => a.down - b.down || a.control - b.control);
}

/** Columns with one press moved by so many frames, all else as it was; entries stay in order of frame, then of change. One pass: it is asked of every shift of every press. */
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
