import * as v from "valibot";
import type { DeepReadonly } from "../formats/readonly";
import { rate } from "../kit/parts";
import { eventNotes } from "./noteKinds";
import { whole } from "./notes/parts";

/** One event of a trace; fields beyond f, kind and id depend on the kind. */
export const eventSchema = v.variant(
  "kind",
  Object.values(eventNotes).map(({ schema }) => schema),
);

/** The trace document: the events of a take under a kit. Source: frame rules, section 9. */
export const traceSchema = v.strictObject({
  format: v.literal("moss-tap/trace"),
  version: v.literal(1),
  rate,
  frames: whole,
  events: v.array(eventSchema),
});

export type TraceDocument = DeepReadonly<v.InferOutput<typeof traceSchema>>;
export type TraceEvent = TraceDocument["events"][number];
