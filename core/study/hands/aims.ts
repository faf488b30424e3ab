import type { JudgedPress } from "./judgedPresses";
import { momentsOf } from "./spread";

/** The aim of a recorded press: how far from where it came, in ms, with its like and its offset to what judged it. */
export interface Aim {
  readonly shiftMs: number;
  readonly like: string;
  /** With the variance of one press: the gap of a step is divided by √2. */
  readonly offsetMs: number;
}

/** The aims of the presses of one take, by control id and index in its lane; undefined for a press whose aim is not known. */
export type TakeAims = ReadonlyMap<string, readonly (Aim | undefined)[]>;

/** The aims of recorded presses, by take id. */
export type Aims = ReadonlyMap<string, TakeAims>;

/** Returns an offset with the variance of one press. */
export const ofOnePress = ({ by, offsetMs }: Pick<JudgedPress, "by" | "offsetMs">): number =>
  by === "step" ? offsetMs / Math.SQRT2 : offsetMs;

/** Returns the mean offset of like presses, for those that have a second one. */
function meansOf(judged: readonly JudgedPress[]): ReadonlyMap<string, number> {
  const sums = momentsOf(judged.map(({ like, offsetMs }) => [like, offsetMs]));
  return new Map([...sums].flatMap(([like, { n, sum }]) => (n > 1 ? [[like, sum / n] as const] : [])));
}

/**
 * Returns the aims of presses: each was aimed where it came, less the difference of its offset from the mean of its like; a
 * step so far from the aim of the step before as steps of its like are on average. With one press of a like its aim is not
 * known. `takes` has the judged presses by the ids of the takes; each of them has an entry, also without a known aim.
 */
export function findAims(takes: ReadonlyMap<string, readonly JudgedPress[]>): Aims {
  const means = meansOf([...takes.values()].flat());
  const aims = new Map<string, TakeAims>();
  for (const [take, judged] of takes) {
    const lanes = new Map<string, (Aim | undefined)[]>();
    aims.set(take, lanes);
    const shifts: (number | undefined)[] = [];
    for (const one of judged) {
      const mean = means.get(one.like);
      const before = one.after === undefined ? 0 : (shifts[one.after] ?? 0);
      const shiftMs = mean === undefined ? undefined : mean - one.offsetMs + before;
      shifts.push(shiftMs);
      if (shiftMs === undefined) continue;
      const lane = lanes.get(one.control) ?? [];
      lanes.set(one.control, lane);
      while (lane.length <= one.press) lane.push(undefined);
      lane[one.press] = { shiftMs, like: one.like, offsetMs: ofOnePress(one) };
    }
  }
  return aims;
}
