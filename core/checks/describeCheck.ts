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
  type RefList,
  type SentencePart,
} from "../kit/sentence";
import type { PathStep } from "../formats/issue";
import { askedKind, askableNotes } from "../trace/noteKinds";
import type { NoteList } from "../trace/notes/noteKind";
import type { AskedEvent } from "./askedEvent";
import type { Check } from "./checksSchema";
import { expectationOf, expectationRecord } from "./expectations/kinds";

/** The list of a kit to which the subjects of each list of a program belong. */
const LISTS = {
  modes: "mode",
  gates: "gate",
  patterns: "pattern",
  moves: "move",
  prompts: "prompt",
} as const satisfies Partial<Record<NoteList, RefList>>;

/** The display names of a check's subjects. */
export interface CheckNames {
  readonly take: (id: string) => string;
  readonly gate: (id: string) => string;
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
  const describe = (one: unknown) => askedKind(event.kind).field?.(field, one, names.gate);
  const all: readonly unknown[] = Array.isArray(value) ? value : [value];
  const known = all.map(describe);
  const [first] = known;
  if (!first) return clause(at, [words(`, ${field} ${all.map(String).join(" or ")}`)]);
  if (first.options && typeof value === "string")
    return clause(at, [words(" "), choice(value, first.options, at, "by which means")]);
  // The words of each value begin with the same separator, which is written once.
  const [separator] = /^,? */.exec(first.words)!;
  const rest = known.map(one => one!.words.slice(separator.length)).join(" or ");
  return clause(at, [words(`${separator}${rest}`)]);
}

/** Formats an event as words: its subject, its action, and the other fields asked for. */
export function describeEvent(
  event: AskedEvent,
  path: readonly PathStep[],
  names: CheckNames,
): SentencePart[] {
  const { kind, id, ...rest } = event;
  const list = LISTS[askableNotes[kind].list];
  return [
    ref(list, id, [...path, "id"], list),
    words(` ${askedKind(kind).verb(event)}`),
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
