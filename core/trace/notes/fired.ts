import * as v from "valibot";
import { figure } from "../../kit/parts";
import type { Payload } from "../../patterns/kind";
import { traitsOf } from "../../patterns/recordOf";
import { FIRE, type Trace } from "../trace";
import { edgeCountOf, formatEdges } from "./edgeList";
import { commonFields, frame, oneOf } from "./asked";
import { defineNote, type EventKind } from "./noteKind";
import { roundSix, whole } from "./parts";

const schema = v.strictObject({
  f: whole,
  kind: v.literal("fired"),
  id: v.string(),
  edges: v.array(v.tuple([v.string(), whole])),
  repeat: v.exactOptional(whole),
  held: v.exactOptional(v.number()),
  age: v.exactOptional(v.number()),
  ratio: v.exactOptional(v.number()),
  level: v.exactOptional(whole),
  value: v.exactOptional(v.number()),
  count: v.exactOptional(whole),
});

/** Returns number `k` of a fire's payload, in the order of the pattern's `carries`. */
export function carriedOf(trace: Trace, note: number, k: number): number {
  return trace.payload[trace.at[note]! + 1 + edgeCountOf(trace, note) + k]!;
}

const asked = v.strictObject({
  kind: v.literal("fired"),
  ...commonFields,
  repeat: oneOf(frame),
  held: oneOf(figure),
  age: oneOf(figure),
  ratio: oneOf(figure),
  level: oneOf(frame),
  value: oneOf(figure),
  count: oneOf(frame),
});

const event: EventKind<typeof schema, typeof asked> = {
  schema,
  format(program, trace, note) {
    const { id, kind } = program.patterns[trace.subject[note]!]!;
    const carried: Record<string, number> = {};
    traitsOf(kind).carries.forEach((name, k) => (carried[name] = roundSix(carriedOf(trace, note, k))));
    return { f: trace.frame[note]!, kind: "fired", id, edges: formatEdges(program, trace, note), ...carried };
  },
  words(event, kit) {
    const pattern = kit.patterns.find(({ id }) => id === event.id);
    return `fired${(pattern && traitsOf(pattern.kind).firedWords?.(event as Payload)) ?? ""}`;
  },
  asked: {
    schema: asked,
    verb: () => "fires",
    field: (field, value) => (field === "count" ? { words: `, taps ${String(value)}` } : undefined),
  },
};

/** A pattern fires. Payload: its edges (see edgeList), then the numbers it carries. */
export const firedNote = { ...defineNote("fired", FIRE, "patterns"), ...event };
