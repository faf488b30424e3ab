import * as v from "valibot";
import { nameOf } from "../../kit/names";
import { id, text } from "../../kit/parts";
import type { Program } from "../../program/program";
import { FAILURE_WORDS } from "../reasonWords";
import { FAILED, FAILURES, GRADED, OK, OPENED, PROMPT, SHOWN } from "../trace";
import { commonFields, oneOf } from "./asked";
import { defineNote, type EventKind } from "./noteKind";
import { whole } from "./parts";

const note = defineNote("prompt", PROMPT, "prompts", ["outcome", "detail"]);

const schema = v.strictObject({
  f: whole,
  kind: v.literal("prompt"),
  id: v.string(),
  outcome: v.string(),
  why: v.exactOptional(v.string()),
  asks: v.exactOptional(v.string()),
});

/** The outcomes of a prompt by name; a grade is `graded` + its index in the prompt's grades. */
export const promptOutcome = { shown: SHOWN, open: OPENED, ok: OK, failed: FAILED, graded: GRADED } as const;

/** Returns whether the outcome is an answer: a grade, or plain ok. */
export function isAnswered(outcome: number): boolean {
  return outcome === OK || outcome >= GRADED;
}

function formatOutcome(program: Program, prompt: number, outcome: number): string {
  if (outcome === SHOWN) return "shown";
  if (outcome === OPENED) return "open";
  if (outcome === OK) return "ok";
  if (outcome === FAILED) return "failed";
  return program.prompts[prompt]!.grades[outcome - GRADED]!.name;
}

/** Returns whether an asked outcome, or one of several, comes before the prompt's end. */
const isUnderWay = (outcome: unknown) => [outcome].flat().some(one => one === "shown" || one === "open");

const asked = v.strictObject({
  kind: v.literal("prompt"),
  ...commonFields,
  outcome: oneOf(text),
  why: oneOf(v.picklist(FAILURES, "choice")),
  asks: oneOf(id),
});

const event: EventKind<typeof schema, typeof asked> = {
  schema,
  format(program, trace, i) {
    const outcome = note.outcome(trace, i);
    const detail = note.detail(trace, i);
    return {
      f: trace.frame[i]!,
      kind: "prompt",
      id: program.prompts[trace.subject[i]!]!.id,
      outcome: formatOutcome(program, trace.subject[i]!, outcome),
      ...(outcome === FAILED ? { why: FAILURES[detail]! } : {}),
      ...(outcome === SHOWN && detail >= 0 ? { asks: program.patterns[detail]!.id } : {}),
    };
  },
  words({ outcome, why, asks }, kit) {
    if (asks !== undefined) return `shown, asking for ${nameOf(kit, "patterns", asks)}`;
    if (outcome === "open") return "window opens";
    return why ? `failed: ${FAILURE_WORDS[why as (typeof FAILURES)[number]]}` : outcome;
  },
  asked: {
    schema: asked,
    verb: ({ outcome }) => (outcome === undefined ? "ends" : isUnderWay(outcome) ? "is" : "ends as"),
    field(field, value) {
      if (field === "outcome") return { words: ` ${String(value)}` };
      if (field === "why") return { words: `, ${FAILURE_WORDS[value as (typeof FAILURES)[number]]}` };
      return undefined;
    },
  },
};

/**
 * An event of a prompt. `outcome`: SHOWN, OPENED, OK, FAILED, or GRADED + the index of a grade; `detail`: for
 * a failure an index into FAILURES, for an answer the pattern whose fire it is, for a showing the pattern it has drawn,
 * else −1.
 */
export const promptNote = { ...note, ...event };
