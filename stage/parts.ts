import * as v from "valibot";
import { BOUNDS, ID_PATTERN, measureFirst } from "#core";

/** The leaf schemas of stage documents. */
export const duration = v.pipe(v.string(), v.regex(/^\d{1,12}(?:f|(?:\.\d{1,3})?ms)$/));
export const id = v.pipe(
  v.string(),
  v.nonEmpty(),
  v.maxLength(BOUNDS.idLetters),
  v.regex(ID_PATTERN, "letters, digits and signs other than / ? # % and \\"),
);
/** A list of at most `most` items. */
export const list = <T extends v.GenericSchema>(item: T, most: number = BOUNDS.items) =>
  measureFirst(v.pipe(v.array(item), v.maxLength(most)));
export const positive = v.pipe(v.number(), v.minValue(0), v.maxValue(1000));
/** The greatest distance between two bodies, in tiles. */
export const MAX_APART = 50;
export const apart = v.pipe(v.number(), v.minValue(0), v.maxValue(MAX_APART));
export const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
