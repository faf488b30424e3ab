import * as v from "valibot";
import { PHASED, PHASES } from "../trace";
import { commonFields, oneOf } from "./asked";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const note = defineNote("phased", PHASED, "moves", ["phase"]);

const schema = v.strictObject({
  f: whole,
  kind: v.literal("phase"),
  id: v.string(),
  phase: v.picklist(PHASES),
});

const asked = v.strictObject({
  kind: v.literal("phase"),
  ...commonFields,
  phase: oneOf(v.picklist(PHASES, "choice")),
});

const event: EventKind<typeof schema, typeof asked> = {
  schema,
  format: (program, trace, i) => ({
    f: trace.frame[i]!,
    kind: "phase",
    id: program.moves[trace.subject[i]!]!.id,
    phase: PHASES[note.phase(trace, i)]!,
  }),
  words: ({ phase }) => (phase === "over" ? "is over" : phase === "cut" ? "is cut" : `${phase} begins`),
  asked: {
    schema: asked,
    verb: ({ phase }) =>
      phase === undefined ? "reaches a phase" : phase === "over" || phase === "cut" ? "is" : "reaches",
    field: (field, value) => (field === "phase" ? { words: ` ${String(value)}` } : undefined),
  },
};

/**
 * A phase of a move's timeline begins, or the timeline is over or cut: `phase` is an index into PHASES. Trace files have it
 * only where it was asked for.
 */
export const phasedNote = { ...note, ...event };
