import * as v from "valibot";
import { MODE } from "../trace";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const schema = v.strictObject({ f: whole, kind: v.literal("mode"), id: v.string() });

const event: EventKind<typeof schema> = {
  schema,
  format: (program, trace, note) => ({
    f: trace.frame[note]!,
    kind: "mode",
    id: program.modes[trace.subject[note]!]!.id,
  }),
  words: () => "mode begins",
};

/** A mode begins: on frame 0 and on each change. */
export const modeNote = { ...defineNote("mode", MODE, "modes"), ...event };
