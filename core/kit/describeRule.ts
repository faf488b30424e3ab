import { describeGate } from "../gates/describeGate";
import { describeMove } from "../moves/describeMove";
import { describePattern } from "../patterns/describePattern";
import { describePrompt } from "../prompts/describePrompt";
import { describeSwitch } from "../modes/describeSwitch";
import type { Kit } from "./schema";
import type { SentencePart } from "./sentence";

/** The lists of a kit whose items are rules with a sentence. */
export type RuleList = "patterns" | "moves" | "gates" | "prompts" | "switches";

/** Returns the sentence of a rule, by its list and its place there; it must exist. Paths are relative to the rule. */
export function describeRule(kit: Kit, list: RuleList, index: number): SentencePart[] {
  switch (list) {
    case "patterns":
      return describePattern(kit.patterns[index]!, kit);
    case "moves":
      return describeMove(kit.moves![index]!);
    case "gates":
      return describeGate(kit.gates![index]!);
    case "prompts":
      return describePrompt(kit.prompts![index]!, kit);
    case "switches":
      return describeSwitch(kit.switches![index]!, kit);
  }
}
