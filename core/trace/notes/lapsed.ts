import * as v from "valibot";
import { countWords } from "../../formats/words";
import { LAPSE_WORDS } from "../reasonWords";
import { LAPSE, LAPSE_REASONS, type LapseReason } from "../trace";
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

const event: EventKind<typeof schema> = {
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
};

/**
 * A pattern lapses. `reason`: an index into LAPSE_REASONS; `reached`: steps of a sequence, −1 for other
 * kinds.
 */
export const lapsedNote = { ...note, ...event };
