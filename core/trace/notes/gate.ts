import * as v from "valibot";
import { GATE } from "../trace";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const note = defineNote("gate", GATE, "gates", ["isOpen"]);

const schema = v.strictObject({ f: whole, kind: v.literal("gate"), id: v.string(), open: v.boolean() });

const event: EventKind<typeof schema> = {
  schema,
  format: (program, trace, i) => ({
    f: trace.frame[i]!,
    kind: "gate",
    id: program.gates[trace.subject[i]!]!.id,
    open: note.isOpen(trace, i) === 1,
  }),
  words: ({ open }) => (open ? "opens" : "closes"),
};

/** A gate opens (`isOpen` 1) or closes (0). */
export const gateNote = { ...note, ...event };
