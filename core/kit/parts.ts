import * as v from "valibot";
import { boundedList, measureFirst } from "../formats/boundedList";
import { BOUNDS, ID_PATTERN } from "../formats/bounds";
import { DURATION_ABOVE_ZERO, DURATION_PATTERN } from "../time/duration";

/**
 * The leaf schemas of all documents. Each carries an issue code in place of a message; parseDocument turns it
 * into an issue. Valibot's own messages are never shown.
 */
export const text = v.pipe(v.string("text"), v.maxLength(BOUNDS.nameLetters, "long-text"));
export const id = v.pipe(
  v.string("text"),
  v.nonEmpty("empty"),
  v.maxLength(BOUNDS.idLetters, "long-text"),
  v.regex(ID_PATTERN, "id"),
);
/** A text of at most `most` characters. */
export const longText = (most: number) => v.pipe(v.string("text"), v.maxLength(most, "long-text"));
/** A number without a closer bound: finite, and small enough to be summed. */
export const figure = v.pipe(
  v.number("type"),
  v.minValue(-BOUNDS.reach, "far"),
  v.maxValue(BOUNDS.reach, "far"),
);
export const flag = v.boolean("type");
export const duration = v.pipe(v.string("length"), v.regex(DURATION_PATTERN, "length"));
/** A length above zero, such as the interval of a repeat. */
export const duration1 = v.pipe(v.string("length"), v.regex(DURATION_ABOVE_ZERO, "length"));
/** A number of taps or presses within human reach. */
export const count1 = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(1, "whole"),
  v.maxValue(999, "range"),
);
/** A seed of draws: a whole number below 2³². */
export const seed = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(0, "range"),
  v.maxValue(2 ** 32 - 1, "range"),
);
export const unit = v.pipe(v.number("range"), v.minValue(0, "range"), v.maxValue(1, "range"));
export const rate = v.pipe(
  v.number("rate"),
  v.integer("rate"),
  v.minValue(1, "rate"),
  v.maxValue(1000, "rate"),
);
export const clock = v.picklist(["game", "real"], "choice");

/** A list with at least one item and at most `most`. */
export function some<T extends v.GenericSchema>(item: T, most: number = BOUNDS.items) {
  return measureFirst(v.pipe(v.array(item, "type"), v.minLength(1, "empty"), v.maxLength(most, "many")));
}

/** A list of at most `most` items, possibly empty. */
export function list<T extends v.GenericSchema>(item: T, most: number = BOUNDS.items) {
  return boundedList(item, most);
}

/** The fields of every pattern, whatever its kind. */
export const patternFields = {
  id,
  name: text,
  modes: v.exactOptional(list(id)),
  clock: v.exactOptional(clock),
  off: v.exactOptional(flag),
  captures: v.exactOptional(flag),
};
