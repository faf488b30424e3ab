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
  { value: "direct", label: "directly", hint: "the gate was open, without buffer or coyote" },
  { value: "buffer", label: "by buffer", hint: "the press came early and waited" },
  { value: "coyote", label: "by coyote", hint: "the press came after the gate had closed" },
  { value: "both", label: "by buffer and coyote", hint: "the press waited, and the gate had closed" },
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
    // A move may also wait to be sure, which is no buffer.
    const way = by === "direct" ? "" : BY.find(({ value }) => value === by)!.label;
    return ["performed", way, waited > 0 ? `after ${waited}f` : ""].filter(Boolean).join(" ");
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
