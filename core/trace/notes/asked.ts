import * as v from "valibot";
import { BOUNDS } from "../../formats/bounds";
import { id, some } from "../../kit/parts";
import type { Option } from "../../kit/sentence";

/** A frame of a take in a document, at most the last of the longest take. */
export const frame = v.pipe(
  v.number("frames"),
  v.integer("frames"),
  v.minValue(0, "frames"),
  v.maxValue(BOUNDS.frames, "past-takes"),
);

/** Accepts one value or a list of values for a field of an event. */
export function oneOf<T extends v.GenericSchema>(value: T) {
  return v.exactOptional(v.union([value, some(value)]));
}

/** The fields that a check can ask of every event. */
export const commonFields = { id, f: oneOf(frame) };

/** The value of a field that a check asks for, in words that follow the event's verb. */
export interface AskedWords {
  readonly words: string;
  /** The values it can be changed to, for a single one of a few. */
  readonly options?: readonly Option[];
}

/** How a check asks for an event. Source: check rules, "Events". */
export interface AskedKind<Schema extends v.GenericSchema = v.GenericSchema> {
  /** The event with any of its fields except its edges. */
  readonly schema: Schema;
  /** The verb that follows the subject's name: "is performed". */
  readonly verb: (event: Readonly<Record<string, unknown>>) => string;
  /**
   * The words of one value of a field, which follow the verb; undefined for the name of the field and the
   * value.
   */
  readonly field?: (
    field: string,
    value: unknown,
    nameOfGate: (id: string) => string,
  ) => AskedWords | undefined;
}
