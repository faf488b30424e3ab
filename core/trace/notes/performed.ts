import * as v from "valibot";
import type { Option } from "../../kit/sentence";
import { PERFORMED, PERFORMED_BY } from "../trace";
import { commonFields, frame, oneOf } from "./asked";
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

const asked = v.strictObject({
  kind: v.literal("performed"),
  ...commonFields,
  made: oneOf(frame),
  waited: oneOf(frame),
  by: oneOf(v.picklist(PERFORMED_BY, "choice")),
});

const BY: readonly Option[] = [
  { value: "direct", label: "at once", hint: "the gate was open and nothing waited" },
  { value: "buffer", label: "from memory", hint: "the press came early and was remembered" },
  { value: "coyote", label: "forgiven", hint: "the press came late and was forgiven" },
  { value: "both", label: "remembered and forgiven", hint: "both kept it" },
];

const event: EventKind<typeof schema, typeof asked> = {
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
  asked: {
    schema: asked,
    verb: () => "is performed",
    field: (field, value) =>
      field === "by"
        ? { words: ` ${BY.find(option => option.value === value)?.label ?? String(value)}`, options: BY }
        : undefined,
  },
};

/** A move is performed. `made`: the frame of its request; `by`: an index into PERFORMED_BY. */
export const performedNote = { ...note, ...event };
