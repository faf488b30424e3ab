import * as v from "valibot";
import { MODE } from "../trace";
import { commonFields } from "./asked";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const schema = v.strictObject({ f: whole, kind: v.literal("mode"), id: v.string() });

const asked = v.strictObject({ kind: v.literal("mode"), ...commonFields });

const event: EventKind<typeof schema, typeof asked> = {
  schema,
  format: (program, trace, note) => ({
    f: trace.frame[note]!,
    kind: "mode",
    id: program.modes[trace.subject[note]!]!.id,
  }),
  words: () => "mode begins",
  asked: {
    schema: asked,
    verb: () => "begins",
  },
};

/** A mode begins: on frame 0 and on each change. */
export const modeNote = { ...defineNote("mode", MODE, "modes"), ...event };
