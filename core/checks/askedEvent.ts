import * as v from "valibot";
import { BOUNDS } from "../formats/bounds";
import type { DeepReadonly } from "../formats/readonly";
import { id, text } from "../kit/parts";
import { askableNotes } from "../trace/noteKinds";
import { frame } from "../trace/notes/asked";

/** A count of events; its maximum is the number of frames in the longest take. */
export const times = v.pipe(
  v.number("whole"),
  v.integer("whole"),
  v.minValue(0, "whole"),
  v.maxValue(BOUNDS.frames, "past-takes"),
);

/**
 * An event a check asks for: its kind, its id, and any other field the event has in a trace file except its
 * edges. Source: check rules, "Events".
 */
export const askedEventSchema = v.variant(
  "kind",
  Object.values(askableNotes).map(({ asked }) => asked.schema),
);

export type AskedEvent = DeepReadonly<v.InferOutput<typeof askedEventSchema>>;

/** One event of a kept story: its frame at the kit's own rate, kind, id, and the outcome of a prompt. */
export const keptSchema = v.union([
  v.strictTuple([frame, v.literal("performed"), id]),
  v.strictTuple([frame, v.literal("prompt"), id, text]),
]);

export type KeptEvent = DeepReadonly<v.InferOutput<typeof keptSchema>>;
