import type { PathStep } from "../formats/issue";
import type { Rounding } from "../time/duration";

/** A choice in a sentence, with a line on its effect. */
export interface Option {
  readonly value: string;
  readonly label: string;
  readonly hint: string;
}

/** A choice that replaces the form of a value: the whole new value to write at its path. */
export interface SwapOption extends Option {
  readonly becomes: unknown;
}

/** The lists of a kit that a sentence can refer to. */
export type RefList = "control" | "gate" | "openable" | "pattern" | "move" | "mode" | "prompt" | "direction";

interface Place {
  /** The path of the field inside the rule. */
  readonly path: readonly PathStep[];
  /** Its accessible name. */
  readonly label: string;
}

type Form =
  | { readonly kind: "words"; readonly text: string }
  | { readonly kind: "name"; readonly text: string }
  | ({ readonly kind: "ref"; readonly list: RefList; readonly id: string } & Place)
  | ({
      readonly kind: "length";
      readonly value: string;
      readonly rounding: Rounding;
      /** The minimum in frames. */
      readonly least: number;
    } & Place)
  | ({ readonly kind: "count"; readonly value: number; readonly least: number } & Place)
  | ({ readonly kind: "number"; readonly value: number } & Place)
  | ({ readonly kind: "text"; readonly value: string } & Place)
  | ({ readonly kind: "choice"; readonly value: string; readonly options: readonly Option[] } & Place)
  | ({ readonly kind: "swap"; readonly value: string; readonly options: readonly SwapOption[] } & Place);

/**
 * A sentence is a list of parts: plain words, and places that can be edited. Parts of an optional clause
 * carry the path of the field or list item whose removal takes the clause out of the rule.
 */
export type SentencePart = Form & { readonly clause?: readonly PathStep[] };

/** A clause that could be added to a rule, and the resulting rule. */
export interface Offer<R = unknown> {
  readonly words: string;
  readonly becomes: R;
}

export function words(text: string): SentencePart {
  return { kind: "words", text };
}

export function ruleName(text: string): SentencePart {
  return { kind: "name", text };
}

export function ref(
  list: RefList,
  id: string,
  path: readonly PathStep[],
  label: string = list,
): SentencePart {
  return { kind: "ref", list, id, path, label };
}

export function control(id: string, path: readonly PathStep[], label = "control"): SentencePart {
  return ref("control", id, path, label);
}

export function gate(id: string, path: readonly PathStep[], label = "gate"): SentencePart {
  return ref("gate", id, path, label);
}

export function atLeast(value: string, path: readonly PathStep[], label: string, least = 0): SentencePart {
  return { kind: "length", value, rounding: "atLeast", least, path, label };
}

export function atMost(value: string, path: readonly PathStep[], label: string, least = 0): SentencePart {
  return { kind: "length", value, rounding: "atMost", least, path, label };
}

export function choice(
  value: string,
  options: readonly Option[],
  path: readonly PathStep[],
  label: string,
): SentencePart {
  return { kind: "choice", value, options, path, label };
}

export function swap(
  value: string,
  options: readonly SwapOption[],
  path: readonly PathStep[],
  label: string,
): SentencePart {
  return { kind: "swap", value, options, path, label };
}

export function count(value: number, path: readonly PathStep[], label: string, least = 1): SentencePart {
  return { kind: "count", value, least, path, label };
}

export function number(value: number, path: readonly PathStep[], label: string): SentencePart {
  return { kind: "number", value, path, label };
}

export function text(value: string, path: readonly PathStep[], label: string): SentencePart {
  return { kind: "text", value, path, label };
}

/**
 * Marks parts as a clause that is removed with the value at `path`; parts of an inner clause keep their own.
 */
export function clause(path: readonly PathStep[], parts: readonly SentencePart[]): SentencePart[] {
  return parts.map(part => (part.clause ? part : { ...part, clause: path }));
}

/** Returns a clause only if its value is present. */
export function optional<T>(
  value: T | undefined,
  path: readonly PathStep[],
  say: (value: T) => readonly SentencePart[],
): SentencePart[] {
  return value === undefined ? [] : clause(path, say(value));
}

/** Joins parts of a list with commas and a final "and". */
export function enumerate(items: readonly SentencePart[], last = "and"): SentencePart[] {
  return items.flatMap((item, i) => {
    if (i === 0) return [item];
    const between = words(i === items.length - 1 ? ` ${last} ` : ", ");
    return [item.clause ? { ...between, clause: item.clause } : between, item];
  });
}

/** Returns the names of a list, each removable unless it is the only required one. */
export function nameList(
  list: RefList,
  ids: readonly string[],
  path: readonly PathStep[],
  label: string,
  last = "and",
  fewest = 0,
): SentencePart[] {
  const names = ids.map((id, k) => ref(list, id, [...path, k], label));
  const free = ids.length > fewest;
  return enumerate(free ? names.map((name, k) => ({ ...name, clause: [...path, k] })) : names, last);
}

/**
 * Formats a sentence as plain text, for lists, tables and screen readers. `nameOf` turns an id into its
 * display name.
 */
export function formatSentence(
  parts: readonly SentencePart[],
  nameOf: (list: RefList, id: string) => string,
): string {
  return parts
    .map(part => {
      switch (part.kind) {
        case "words":
        case "name":
          return part.text;
        case "ref":
          return nameOf(part.list, part.id);
        case "length":
        case "text":
          return part.value;
        case "count":
        case "number":
          return String(part.value);
        case "choice":
        case "swap":
          return part.options.find(option => option.value === part.value)?.label ?? part.value;
      }
    })
    .join("");
}
