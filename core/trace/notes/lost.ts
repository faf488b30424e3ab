import * as v from "valibot";
import { text } from "../../kit/parts";
import { gateName } from "../../kit/names";
import type { Program } from "../../program/program";
import { LOSS_WORDS } from "../reasonWords";
import { LOSS_REASONS, LOST, type LossReason } from "../trace";
import { commonFields, frame, oneOf } from "./asked";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const note = defineNote("lost", LOST, "moves", ["made", "reason", "because", "spentAt"]);

const schema = v.strictObject({
  f: whole,
  kind: v.literal("lost"),
  id: v.string(),
  made: whole,
  why: v.string(),
});

/**
 * Formats a loss as in files: `gate:footing`, `ban:wall`, or the plain reason. `reason` and `because` as in
 * the note.
 */
export function formatLoss(program: Program, reason: number, because: number): string {
  const word = LOSS_REASONS[reason]!;
  return word === "gate" || word === "ban" ? `${word}:${program.gates[because]!.id}` : word;
}

const asked = v.strictObject({
  kind: v.literal("lost"),
  ...commonFields,
  made: oneOf(frame),
  why: oneOf(text),
});

const event: EventKind<typeof schema, typeof asked> = {
  schema,
  format: (program, trace, i) => ({
    f: trace.frame[i]!,
    kind: "lost",
    id: program.moves[trace.subject[i]!]!.id,
    made: note.made(trace, i),
    why: formatLoss(program, note.reason(trace, i), note.because(trace, i)),
  }),
  words({ why, made }, kit) {
    const colon = why.indexOf(":");
    const reason = (colon < 0 ? why : why.slice(0, colon)) as LossReason;
    const gate = colon < 0 ? "" : gateName(kit, why.slice(colon + 1));
    return `lost: ${LOSS_WORDS[reason](gate)} (asked for at ${made})`;
  },
  asked: {
    schema: asked,
    verb: () => "is lost",
    field(field, value, nameOfGate) {
      if (field !== "why") return undefined;
      const why = String(value);
      const [, word = why, gate = ""] = /^(gate|ban):(.*)$/s.exec(why) ?? [];
      const isKnown = Object.hasOwn(LOSS_WORDS, word);
      return { words: `, ${isKnown ? LOSS_WORDS[word as LossReason](nameOfGate(gate)) : why}` };
    },
  },
};

/**
 * A request is lost. `made`: the frame of the request; `reason`: an index into LOSS_REASONS; `because`: the
 * gate of `gate` and `ban`, the preferred move for `replaced`, `beaten` and `busy`, else 0; `spentAt`: the
 * frame on which that open gate was spent, or −1.
 */
export const lostNote = { ...note, ...event };
