import type { Kit } from "../kit/schema";
import {
  atLeast,
  choice,
  clause,
  enumerate,
  number,
  optional,
  ref,
  words,
  type Offer,
  type Option,
  type RefList,
  type SentencePart,
} from "../kit/sentence";
import type { PathStep } from "../formats/issue";
import { FAILURE_WORDS, LAPSE_WORDS, LOSS_WORDS } from "../trace/reasonWords";
import type { LapseReason, LossReason } from "../trace/trace";
import type { AskedEvent } from "./askedEvent";
import type { Check } from "./checksSchema";
import { expectationOf, expectationRecord } from "./expectations/kinds";

const LISTS: Readonly<Record<AskedEvent["kind"], RefList>> = {
  performed: "move",
  lost: "move",
  fired: "pattern",
  lapsed: "pattern",
  prompt: "prompt",
  gate: "gate",
  mode: "mode",
};

const VERBS: Readonly<Record<AskedEvent["kind"], string>> = {
  performed: "is performed",
  lost: "is lost",
  fired: "fires",
  lapsed: "lapses",
  prompt: "comes to an outcome",
  gate: "turns",
  mode: "begins",
};

const BY: readonly Option[] = [
  { value: "direct", label: "at once", hint: "the gate was open and nothing waited" },
  { value: "buffer", label: "from memory", hint: "the press came early and was remembered" },
  { value: "coyote", label: "forgiven", hint: "the press came late and was forgiven" },
  { value: "both", label: "remembered and forgiven", hint: "both kept it" },
];

const WORDS_OF_BY: Readonly<Record<string, string>> = Object.fromEntries(
  BY.map(({ value, label }) => [value, label]),
);

const listWords = (value: unknown, say: (one: unknown) => string = String) =>
  Array.isArray(value) ? value.map(item => say(item)).join(" or ") : say(value);

/** The display names of a check's subjects. */
export interface CheckNames {
  readonly take: (id: string) => string;
  readonly gate: (id: string) => string;
}

/** Formats a reason from a trace file as words that follow a comma. */
function whyWords(kind: AskedEvent["kind"], why: string, names: CheckNames): string {
  const [, word = why, gate = ""] = /^(gate|ban):(.*)$/s.exec(why) ?? [];
  if (kind === "lost")
    return Object.hasOwn(LOSS_WORDS, word) ? LOSS_WORDS[word as LossReason](names.gate(gate)) : why;
  if (kind === "lapsed") return LAPSE_WORDS[why as LapseReason];
  return FAILURE_WORDS[why as keyof typeof FAILURE_WORDS];
}

/** Formats one further field of an event: " forgiven", ", Footing was not open", " clean". */
function describeField(
  names: CheckNames,
  event: AskedEvent,
  field: string,
  value: unknown,
  path: readonly PathStep[],
): SentencePart[] {
  const at = [...path, field];
  if (field === "by")
    return clause(
      at,
      typeof value === "string"
        ? [words(" "), choice(value, BY, at, "by which means")]
        : [words(` ${listWords(value, one => WORDS_OF_BY[one as string] ?? String(one))}`)],
    );
  if (field === "outcome") return clause(at, [words(` ${listWords(value)}`)]);
  if (field === "open")
    return clause(at, [words(value === true ? " open" : value === false ? " closed" : "")]);
  if (field === "why")
    return clause(at, [words(`, ${listWords(value, one => whyWords(event.kind, String(one), names))}`)]);
  return clause(at, [
    words(`, ${event.kind === "fired" && field === "count" ? "taps" : field} ${listWords(value)}`),
  ]);
}

/** Formats an event as words: its subject, its action, and the other fields asked for. */
export function describeEvent(
  event: AskedEvent,
  path: readonly PathStep[],
  names: CheckNames,
): SentencePart[] {
  const { kind, id, ...rest } = event;
  const list = LISTS[kind];
  const verb = kind === "prompt" && "outcome" in rest ? "comes out" : VERBS[kind];
  return [
    ref(list, id, [...path, "id"], list),
    words(` ${verb}`),
    ...Object.entries(rest).flatMap(([field, value]) => describeField(names, event, field, value, path)),
  ];
}

/** Describes a check as one sentence without its name. Paths are relative to the check. */
export function describeCheck(check: Check, names: CheckNames): SentencePart[] {
  const takes = check.on === "*" ? [] : check.on;
  return [
    words(check.on === "*" ? "In every take " : "In "),
    ...enumerate(
      takes.map((id, k) => {
        const part = words(names.take(id));
        return takes.length > 1 ? { ...part, clause: ["on", k] } : part;
      }),
    ),
    ...(check.on === "*" ? [] : [words(", ")]),
    ...expectationRecord(expectationOf(check)).describe(check, {
      event: (event, path) => describeEvent(event, path, names),
    }),
    ...optional(check.from, ["from"], from => [words(", from "), atLeast(from, ["from"], "looked at from")]),
    ...optional(check.to, ["to"], to => [words(", up to "), atLeast(to, ["to"], "looked at up to")]),
    ...optional(check.rates, ["rates"], rates => [
      words(", at "),
      ...enumerate(rates.map((rate, k) => number(rate, ["rates", k], "frames a second"))),
      words(" frames a second"),
    ]),
  ];
}

/** Returns the clauses that could be added to a check. */
export function offerCheck(check: Check, kit: Kit, takeIds: readonly string[]): Offer<Check>[] {
  const offers: (Offer<Check> | false)[] = [
    check.on !== "*" && { words: "… in every take", becomes: { ...check, on: "*" } },
    check.on !== "*" &&
      takeIds.some(id => !check.on.includes(id)) && {
        words: "… in one more take",
        becomes: { ...check, on: [...check.on, takeIds.find(id => !check.on.includes(id))!] },
      },
    ...(expectationRecord(expectationOf(check)).offers(check, kit) as readonly (Offer<Check> | false)[]),
    check.from === undefined && { words: "… from a moment on", becomes: { ...check, from: "0f" } },
    check.to === undefined && { words: "… up to a moment", becomes: { ...check, to: "60f" } },
    check.rates === undefined && {
      words: "… at other rates too",
      becomes: { ...check, rates: [kit.rate, 120] },
    },
  ];
  return offers.filter(offer => offer !== false);
}
