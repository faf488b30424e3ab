import * as v from "valibot";
import type { DeepReadonly } from "../formats/readonly";
import { rate } from "../kit/parts";

const frame = v.pipe(v.number(), v.integer(), v.minValue(0));
const f = frame;
const id = v.string();
const edges = v.array(v.tuple([v.string(), frame]));

/** One event of a trace; fields beyond f, kind and id depend on the kind. */
export const eventSchema = v.variant("kind", [
  v.strictObject({ f, kind: v.literal("mode"), id }),
  v.strictObject({ f, kind: v.literal("gate"), id, open: v.boolean() }),
  v.strictObject({
    f,
    kind: v.literal("fired"),
    id,
    edges,
    repeat: v.exactOptional(frame),
    held: v.exactOptional(v.number()),
    age: v.exactOptional(v.number()),
    ratio: v.exactOptional(v.number()),
    level: v.exactOptional(frame),
    value: v.exactOptional(v.number()),
    count: v.exactOptional(frame),
  }),
  v.strictObject({ f, kind: v.literal("lapsed"), id, why: v.string(), reached: v.exactOptional(frame) }),
  v.strictObject({ f, kind: v.literal("prompt"), id, outcome: v.string(), why: v.exactOptional(v.string()) }),
  v.strictObject({
    f,
    kind: v.literal("performed"),
    id,
    made: frame,
    waited: frame,
    by: v.picklist(["direct", "buffer", "coyote", "both"]),
  }),
  v.strictObject({ f, kind: v.literal("lost"), id, made: frame, why: v.string() }),
]);

/** The trace document: what the core made of a take. Source: frame rules, section 9. */
export const traceSchema = v.strictObject({
  format: v.literal("moss-tap/trace"),
  version: v.literal(1),
  rate,
  frames: frame,
  events: v.array(eventSchema),
});

export type TraceDocument = DeepReadonly<v.InferOutput<typeof traceSchema>>;
export type TraceEvent = TraceDocument["events"][number];
