import { describeRule, formatSentence, nameIn, type Kit, type SentencePart } from "#core";
import { escapeHtml } from "./escapeHtml";

/** The lists of rules in the order of a sheet, with their headings. */
export const LISTS = ["moves", "patterns", "gates", "prompts"] as const;
export const TITLES = { moves: "Moves", patterns: "Patterns", gates: "Gates", prompts: "Prompts" } as const;

/** Formats a sentence as HTML, with names in bold. */
export function sentenceOf(kit: Kit, parts: readonly SentencePart[]): string {
  const [first, ...rest] = parts;
  if (first?.kind !== "name") return escapeHtml(formatSentence(parts, nameIn(kit)));
  return `<b>${escapeHtml(first.text)}</b>${escapeHtml(formatSentence(rest, nameIn(kit)))}`;
}

/** One rule of a sheet: its list and id, independent of its position, and its sentence as text. */
export interface SheetRule {
  readonly key: string;
  readonly sentence: string;
}

/** Returns every rule of a kit with its sentence, including switches of modes; a disabled rule is marked. */
export function listRules(kit: Kit): SheetRule[] {
  const format = (parts: readonly SentencePart[], isOff: boolean) =>
    `${formatSentence(parts, nameIn(kit))}${isOff ? " (off)" : ""}`;
  const rules = LISTS.flatMap(list =>
    (kit[list] ?? []).map((rule, index): SheetRule => {
      const isOff = "off" in rule && rule.off === true;
      return { key: `${list} ${rule.id}`, sentence: format(describeRule(kit, list, index), isOff) };
    }),
  );
  const switches = (kit.switches ?? []).map((_, index): SheetRule => {
    return { key: `switches ${index}`, sentence: format(describeRule(kit, "switches", index), false) };
  });
  return [...rules, ...switches];
}
