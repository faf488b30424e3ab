import type { PathStep } from "../formats/issue";
import type { Rounding } from "../time/duration";

/** A choice offered inside a sentence, with a line on what it does. */
export interface Option {
  readonly value: string;
  readonly label: string;
  readonly hint: string;
}

/**
 * A sentence is a list of parts: plain words, and places where something can be changed. A part that can be
 * changed has the path of its field inside the rule, and a label that names it for people who cannot see it.
 */
export type SentencePart =
  | { readonly kind: "words"; readonly text: string }
  | { readonly kind: "name"; readonly text: string }
  | {
      readonly kind: "control";
      readonly id: string;
      readonly path: readonly PathStep[];
      readonly label: string;
    }
  | { readonly kind: "gate"; readonly id: string; readonly path: readonly PathStep[]; readonly label: string }
  | {
      readonly kind: "pattern";
      readonly id: string;
      readonly path: readonly PathStep[];
      readonly label: string;
    }
  | {
      readonly kind: "length";
      readonly value: string;
      readonly rounding: Rounding;
      /** The fewest frames it may be. */
      readonly least: number;
      readonly path: readonly PathStep[];
      readonly label: string;
    }
  | {
      readonly kind: "count";
      readonly value: number;
      readonly least: number;
      readonly path: readonly PathStep[];
      readonly label: string;
    }
  | {
      readonly kind: "choice";
      readonly value: string;
      readonly options: readonly Option[];
      readonly path: readonly PathStep[];
      readonly label: string;
    };

export function words(text: string): SentencePart {
  return { kind: "words", text };
}

export function ruleName(text: string): SentencePart {
  return { kind: "name", text };
}

export function control(id: string, path: readonly PathStep[], label = "control"): SentencePart {
  return { kind: "control", id, path, label };
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

export function count(value: number, path: readonly PathStep[], label: string, least = 1): SentencePart {
  return { kind: "count", value, least, path, label };
}

/** Places parts of a list with commas and a last "and" between them. */
export function enumerate(items: readonly SentencePart[], last = "and"): SentencePart[] {
  return items.flatMap((item, i) => {
    if (i === 0) return [item];
    return [words(i === items.length - 1 ? ` ${last} ` : ", "), item];
  });
}

/** The sentence as plain text, for lists, tables and screen readers. `nameOf` turns an id into the name people gave it. */
export function formatSentence(
  parts: readonly SentencePart[],
  nameOf: (kind: "control" | "gate" | "pattern", id: string) => string,
): string {
  return parts
    .map(part => {
      switch (part.kind) {
        case "words":
        case "name":
          return part.text;
        case "control":
        case "gate":
        case "pattern":
          return nameOf(part.kind, part.id);
        case "length":
          return part.value;
        case "count":
          return String(part.value);
        case "choice":
          return part.options.find(option => option.value === part.value)?.label ?? part.value;
      }
    })
    .join("");
}
