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

/** Columns with one press moved by so many frames, all else as it was; entries stay in order of frame, then of change. */
export function shiftPress(columns: InputColumns, press: ColumnPress, by: number): InputColumns {
  const { controlFrame, controlChange } = columns;
  const moved = (k: number) => (k === press.downAt || k === press.upAt ? by : 0);
  const order = Array.from(controlFrame, (_, k) => k).sort(
    (a, b) =>
      controlFrame[a]! + moved(a) - (controlFrame[b]! + moved(b)) || controlChange[a]! - controlChange[b]!,
  );
  return {
    ...columns,
    controlFrame: Uint32Array.from(order, k => controlFrame[k]! + moved(k)),
    controlChange: Uint32Array.from(order, k => controlChange[k]!),
  };
}
