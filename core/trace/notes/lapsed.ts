import * as v from "valibot";
import { countWords } from "../../formats/words";
import { LAPSE_WORDS } from "../reasonWords";
import { LAPSE, LAPSE_REASONS, type LapseReason } from "../trace";
import { commonFields, frame, oneOf } from "./asked";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const note = defineNote("lapsed", LAPSE, "patterns", ["reason", "reached"]);

const schema = v.strictObject({
  f: whole,
  kind: v.literal("lapsed"),
  id: v.string(),
  why: v.string(),
  reached: v.exactOptional(whole),
});

const asked = v.strictObject({
  kind: v.literal("lapsed"),
  ...commonFields,
  why: oneOf(v.picklist(LAPSE_REASONS, "choice")),
  reached: oneOf(frame),
});

const event: EventKind<typeof schema, typeof asked> = {
  schema,
  format(program, trace, i) {
    const reached = note.reached(trace, i);
    return {
      f: trace.frame[i]!,
      kind: "lapsed",
      id: program.patterns[trace.subject[i]!]!.id,
      why: LAPSE_REASONS[note.reason(trace, i)]!,
      ...(reached < 0 ? {} : { reached }),
    };
  },
  words({ why, reached }) {
    const steps = reached === undefined ? "" : `, ${countWords(reached, "step")} made`;
    return `lapsed: ${LAPSE_WORDS[why as LapseReason]}${steps}`;
  },
  asked: {
    schema: asked,
    verb: () => "lapses",
    field: (field, value) =>
      field === "why" ? { words: `, ${LAPSE_WORDS[value as LapseReason]}` } : undefined,
  },
};

/**
 * A pattern lapses. `reason`: an index into LAPSE_REASONS; `reached`: steps of a sequence, −1 for other
 * kinds.
 */
export const lapsedNote = { ...note, ...event };
