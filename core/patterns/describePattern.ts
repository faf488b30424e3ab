import type { Kit, Pattern } from "../kit/schema";
import { ruleName, type Offer, type SentencePart } from "../kit/sentence";
import { recordOf } from "./recordOf";
import { describeCaptures, describeWhere, offerIf, offerWhere } from "./describeParts";

/**
 * Describes a pattern as one sentence, its name first, with editable numbers and choices. Paths are relative
 * to the pattern.
 */
export function describePattern(pattern: Pattern, kit: Kit): SentencePart[] {
  return [
    ruleName(pattern.name || pattern.id),
    ...recordOf(pattern.kind).describe(pattern, kit),
    ...describeCaptures(pattern),
    ...describeWhere(pattern),
  ];
}

/** Returns the clauses that could be added to a pattern, each with the resulting pattern. */
export function offerPattern(pattern: Pattern, kit: Kit): Offer<Pattern>[] {
  return [
    ...recordOf(pattern.kind).offer(pattern, kit),
    ...offerIf(!pattern.captures, "… and keep its controls from other rules", () => ({
      ...pattern,
      captures: true,
    })),
    ...offerWhere(pattern, kit),
  ];
}
