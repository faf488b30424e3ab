import type { Kit } from "../kit/schema";
import type { PreparedKit, PrepareRun } from "./prepareRun";
import { writeSwept, type Swept } from "./sweep/swept";

/** A number of a kit with the values to try, and other numbers set at the same time: one row of a field of two numbers. */
export interface ValuesQuestion {
  readonly kit: Kit;
  readonly swept: Swept;
  readonly besides?: readonly { readonly swept: Swept; readonly value: number }[];
  readonly values: readonly number[];
}

/**
 * Prepares the kit at each value; undefined where it has faults. Yields `progress` after each, because a large kit takes its
 * time.
 */
export function* prepareValues<P>(
  { kit, swept, besides = [], values }: ValuesQuestion,
  prepare: PrepareRun,
  progress: P,
): Generator<P, readonly (PreparedKit | undefined)[]> {
  const ready: (PreparedKit | undefined)[] = [];
  for (const value of values) {
    const changed = [{ swept, value }, ...besides].reduce<Kit | undefined>(
      (now, other) => now && writeSwept(now, other.swept, other.value),
      kit,
    );
    ready.push(changed && prepare(changed));
    yield progress;
  }
  return ready;
}

/** How results at values between two others follow from theirs; see isEqualBetween. */
export interface Sharing<R> {
  /** Whether two runs decided the same, so that those at values between them did too. */
  readonly isSame: (lower: R, upper: R) => boolean;
  /** Returns the result at a value below that of `upper`, by its place; undefined if it must be run after all. */
  readonly derive: (upper: R, place: number) => R | undefined;
}

export const isAscending = (values: readonly number[]): boolean =>
  values.every((value, k) => k === 0 || values[k - 1]! <= value);

/**
 * Yields after each run of one play at some values, by their places, which ascend; returns the results. With `sharing`, the
 * ends are run first, and values between two that decided the same are derived.
 */
export function* runValues<R>(
  places: readonly number[],
  runAt: (place: number) => R,
  sharing: Sharing<R> | undefined,
): Generator<undefined, readonly R[]> {
  const found: R[] = [];
  if (places.length === 0) return found;
  for (const k of sharing ? [0, places.length - 1] : places.keys()) {
    found[k] ??= runAt(places[k]!);
    yield;
  }
  const stretches: (readonly [from: number, to: number])[] = sharing ? [[0, places.length - 1]] : [];
  for (let stretch = stretches.pop(); sharing && stretch; stretch = stretches.pop()) {
    const [from, to] = stretch;
    if (to - from < 2) continue;
    if (sharing.isSame(found[from]!, found[to]!)) {
      for (let k = from + 1; k < to; k++) {
        const derived = sharing.derive(found[to]!, places[k]!);
        found[k] = derived ?? runAt(places[k]!);
        if (derived === undefined) yield;
      }
      continue;
    }
    const middle = (from + to) >> 1;
    found[middle] = runAt(places[middle]!);
    stretches.push([from, middle], [middle, to]);
    yield;
  }
  return found;
}
