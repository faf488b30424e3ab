import * as v from "valibot";
import { PERFORMED, PERFORMED_BY } from "../trace";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const note = defineNote("performed", PERFORMED, "moves", ["made", "by"]);

const schema = v.strictObject({
  f: whole,
  kind: v.literal("performed"),
  id: v.string(),
  made: whole,
  waited: whole,
  by: v.picklist(PERFORMED_BY),
});

const event: EventKind<typeof schema> = {
  schema,
  format(program, trace, i) {
    const f = trace.frame[i]!;
    const made = note.made(trace, i);
    const by = PERFORMED_BY[note.by(trace, i)]!;
    return { f, kind: "performed", id: program.moves[trace.subject[i]!]!.id, made, waited: f - made, by };
  },
  words({ waited, by }) {
    const kept = waited > 0 ? `, remembered ${waited}f` : "";
    return `performed${kept}${by === "coyote" || by === "both" ? ", forgiven" : ""}`;
  },
};

/** A move is performed. `made`: the frame of its request; `by`: an index into PERFORMED_BY. */
export const performedNote = { ...note, ...event };
