import * as v from "valibot";
import { BOUNDS, ID_PATTERN } from "../formats/bounds";
import { DURATION_ABOVE_ZERO, DURATION_PATTERN } from "../time/duration";

/**
 * The leaves all schemas are made of. Each carries an issue code in place of a message,
 * which parseDocument turns into an issue; Valibot's own sentences never reach anyone.
 */
export const text = v.pipe(v.string("text"), v.maxLength(BOUNDS.nameLetters, "long-text"));
export const id = v.pipe(
  v.string("text"),
  v.nonEmpty("empty"),
  v.maxLength(BOUNDS.idLetters, "long-text"),
  v.regex(ID_PATTERN, "id"),
);
/** A text as long as so many letters. */
export const longText = (most: number) => v.pipe(v.string("text"), v.maxLength(most, "long-text"));
/** A number that nothing else bounds: finite, and not so large that sums of it are not. */
export const figure = v.pipe(
  v.number("type"),
  v.minValue(-BOUNDS.reach, "far"),
  v.maxValue(BOUNDS.reach, "far"),
);
export const flag = v.boolean("type");
export const duration = v.pipe(v.string("length"), v.regex(DURATION_PATTERN, "length"));
/** A length that must not be zero, such as the beat of a repeat. */
export const duration1 = v.pipe(v.string("length"), v.regex(DURATION_ABOVE_ZERO, "length"));
/** How many taps or presses: a number a hand can make. */
export const count1 = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(1, "whole"),
  v.maxValue(999, "range"),
);
export const unit = v.pipe(v.number("range"), v.minValue(0, "range"), v.maxValue(1, "range"));
export const rate = v.pipe(
  v.number("rate"),
  v.integer("rate"),
  v.minValue(1, "rate"),
  v.maxValue(1000, "rate"),
);
export const clock = v.picklist(["game", "real"], "choice");

/** A list with at least one item, and no more than so many. */
export function some<T extends v.GenericSchema>(item: T, most: number = BOUNDS.items) {
  return v.pipe(v.array(item, "type"), v.minLength(1, "empty"), v.maxLength(most, "many"));
}

/** A list that may be empty, of no more than so many. */
export function list<T extends v.GenericSchema>(item: T, most: number = BOUNDS.items) {
  return v.pipe(v.array(item, "type"), v.maxLength(most, "many"));
}

/** The fields every pattern has, whatever its kind. */
export const patternFields = {
  id,
  name: text,
  modes: v.exactOptional(list(id)),
  clock: v.exactOptional(clock),
  off: v.exactOptional(flag),
  captures: v.exactOptional(flag),
};
