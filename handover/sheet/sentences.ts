import {
  describeGate,
  describeMove,
  describePattern,
  describePrompt,
  describeSwitch,
  formatSentence,
  gateName,
  nameOf,
  type Kit,
  type RefList,
  type SentencePart,
} from "#core";
import { escapeHtml } from "./escapeHtml";

/** The lists of rules in the order in which a sheet tells them, and what each is called. */
export const LISTS = ["moves", "patterns", "gates", "prompts"] as const;
export const TITLES = { moves: "Moves", patterns: "Patterns", gates: "Gates", prompts: "Prompts" } as const;

/** What the lists of a sentence call their things. */
const NAMED: Readonly<Partial<Record<RefList, "controls" | "patterns" | "moves" | "modes" | "prompts">>> = {
  control: "controls",
  pattern: "patterns",
  move: "moves",
  mode: "modes",
  prompt: "prompts",
};

const nameIn = (kit: Kit) => (list: RefList, id: string) => {
  const named = NAMED[list];
  return named ? nameOf(kit, named, id) : list === "gate" ? gateName(kit, id) : id;
};

/** A sentence as HTML, what it names first in strong letters. */
export function sentenceOf(kit: Kit, parts: readonly SentencePart[]): string {
  const [first, ...rest] = parts;
  if (first?.kind !== "name") return escapeHtml(formatSentence(parts, nameIn(kit)));
  return `<b>${escapeHtml(first.text)}</b>${escapeHtml(formatSentence(rest, nameIn(kit)))}`;
}

/** The sentence of a rule by its list and its place there. */
export function describeRule(kit: Kit, list: (typeof LISTS)[number], index: number): readonly SentencePart[] {
  switch (list) {
    case "moves":
      return describeMove(kit.moves![index]!);
    case "patterns":
      return describePattern(kit.patterns[index]!, kit);
    case "gates":
      return describeGate(kit.gates![index]!);
    case "prompts":
      return describePrompt(kit.prompts![index]!, kit);
  }
}

/** One rule as it is told: what it is, whatever its place, and its sentence as text. */
export interface ToldRule {
  readonly key: string;
  readonly sentence: string;
}

/** Every rule of a kit with its sentence, switches of modes too; one that is off says so. */
export function listRules(kit: Kit): ToldRule[] {
  const told = (parts: readonly SentencePart[], isOff: boolean) =>
    `${formatSentence(parts, nameIn(kit))}${isOff ? " (off)" : ""}`;
  const rules = LISTS.flatMap(list =>
    (kit[list] ?? []).map((rule, index): ToldRule => {
      const isOff = "off" in rule && rule.off === true;
      return { key: `${list} ${rule.id}`, sentence: told(describeRule(kit, list, index), isOff) };
    }),
  );
  const switches = (kit.switches ?? []).map((item, index): ToldRule => {
    return { key: `switches ${index}`, sentence: told(describeSwitch(item, kit), false) };
  });
  return [...rules, ...switches];
}
