import * as v from "valibot";
import { flag } from "../../kit/parts";
import { GATE } from "../trace";
import { commonFields, oneOf } from "./asked";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const note = defineNote("gate", GATE, "gates", ["isOpen"]);

const schema = v.strictObject({ f: whole, kind: v.literal("gate"), id: v.string(), open: v.boolean() });

const asked = v.strictObject({ kind: v.literal("gate"), ...commonFields, open: oneOf(flag) });

const event: EventKind<typeof schema, typeof asked> = {
  schema,
  format: (program, trace, i) => ({
    f: trace.frame[i]!,
    kind: "gate",
    id: program.gates[trace.subject[i]!]!.id,
    open: note.isOpen(trace, i) === 1,
  }),
  words: ({ open }) => (open ? "opens" : "closes"),
  asked: {
    schema: asked,
    verb: event => ("open" in event ? "turns" : "opens or closes"),
    field: (field, value) => (field === "open" ? { words: value === true ? " open" : " closed" } : undefined),
  },
};

/** A gate opens (`isOpen` 1) or closes (0). */
export const gateNote = { ...note, ...event };
