import * as v from "valibot";
import { BOUNDS } from "../formats/bounds";
import type { DeepReadonly } from "../formats/readonly";
import { figure, flag, id, some, text } from "../kit/parts";
import { FAILURES, LAPSE_REASONS, PERFORMED_BY } from "../trace/trace";

/** A frame of a take, at most the last of the longest take. */
export const frame = v.pipe(
  v.number("frames"),
  v.integer("frames"),
  v.minValue(0, "frames"),
  v.maxValue(BOUNDS.frames, "past-takes"),
);

/** A count of events; its maximum is the number of frames in the longest take. */
export const times = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(0, "whole"),
  v.maxValue(BOUNDS.frames, "past-takes"),
);

/** Accepts one value or a list of values for a field of an event. */
function oneOf<T extends v.GenericSchema>(value: T) {
  return v.exactOptional(v.union([value, some(value)]));
}

const common = { id, f: oneOf(frame) };

/**
 * An event a check asks for: its kind, its id, and any other field the event has in a trace file except its
 * edges. Source: check rules, "Events".
 */
export const askedEventSchema = v.variant("kind", [
  v.strictObject({
    kind: v.literal("performed"),
    ...common,
    made: oneOf(frame),
    waited: oneOf(frame),
    by: oneOf(v.picklist(PERFORMED_BY, "choice")),
  }),
  v.strictObject({ kind: v.literal("lost"), ...common, made: oneOf(frame), why: oneOf(text) }),
  v.strictObject({
    kind: v.literal("fired"),
    ...common,
    repeat: oneOf(frame),
    held: oneOf(figure),
    age: oneOf(figure),
    ratio: oneOf(figure),
    level: oneOf(frame),
    value: oneOf(figure),
    count: oneOf(frame),
  }),
  v.strictObject({
    kind: v.literal("lapsed"),
    ...common,
    why: oneOf(v.picklist(LAPSE_REASONS, "choice")),
    reached: oneOf(frame),
  }),
  v.strictObject({
    kind: v.literal("prompt"),
    ...common,
    outcome: oneOf(text),
    why: oneOf(v.picklist(FAILURES, "choice")),
  }),
  v.strictObject({ kind: v.literal("gate"), ...common, open: oneOf(flag) }),
  v.strictObject({ kind: v.literal("mode"), ...common }),
]);

export type AskedEvent = DeepReadonly<v.InferOutput<typeof askedEventSchema>>;

/** One event of a kept story: its frame at the kit's own rate, kind, id, and the outcome of a prompt. */
export const keptSchema = v.union([
  v.strictTuple([frame, v.literal("performed"), id]),
  v.strictTuple([frame, v.literal("prompt"), id, text]),
]);

export type KeptEvent = DeepReadonly<v.InferOutput<typeof keptSchema>>;
