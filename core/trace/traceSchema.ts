import * as v from "valibot";
import type { DeepReadonly } from "../formats/readonly";
import { rate } from "../kit/parts";
import { askableNotes, eventNotes } from "./noteKinds";
import { whole } from "./notes/parts";

const eventSchemas = Object.values(eventNotes).map(({ schema }) => schema);

/** An event of a file; fields beyond f, kind and id depend on the kind. Phases occur only where they were asked for. */
const eventSchema = v.variant("kind", [...eventSchemas, askableNotes.phase.schema]);

/** The trace document: the events of a take under a kit. Source: frame rules, section 9. */
export const traceSchema = v.strictObject({
  format: v.literal("moss-tap/trace"),
  version: v.literal(1),
  rate,
  frames: whole,
  events: v.array(eventSchema),
});

export type TraceEvent = DeepReadonly<v.InferOutput<(typeof eventSchemas)[number]>>;
/** An event of a trace with the phases of moves, which a check can ask for. */
export type PhasedTraceEvent = PhasedTraceDocument["events"][number];
/** A trace with the phases of moves. */
export type PhasedTraceDocument = DeepReadonly<v.InferOutput<typeof traceSchema>>;
export type TraceDocument = Omit<PhasedTraceDocument, "events"> & { readonly events: readonly TraceEvent[] };
