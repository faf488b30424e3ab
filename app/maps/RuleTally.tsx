import {
  countRules,
  countWords,
  formatMoveCounts,
  formatPatternCounts,
  formatPromptCounts,
  type RuleCounts,
} from "#core";
import { useEvaluated } from "../document/context";
import { useTakes } from "./useTakes";

type Counted = "patterns" | "moves" | "prompts";

function wordsOf(counts: RuleCounts, list: Counted, index: number): string {
  if (list === "moves") return formatMoveCounts(counts.moves[index]!);
  return list === "patterns"
    ? formatPatternCounts(counts.patterns[index]!)
    : formatPromptCounts(counts.prompts[index]!);
}

/** How often a rule fired, was performed, by which means, or came to nothing: in the open take, and in all. */
export function RuleTally({ list, index }: { list: Counted; index: number }) {
  const evaluated = useEvaluated();
  const now = useTakes();
  if (!now || now.takes.length === 0) return null;
  const isOpenShort = evaluated !== undefined && now.takes.includes(evaluated);
  const inAll = wordsOf(countRules(now.program, now.traces), list, index);
  const inOpen =
    isOpenShort && now.takes.length > 1
      ? wordsOf(countRules(now.program, [evaluated.trace]), list, index)
      : "";
  const where =
    now.takes.length === 1 ? now.takes[0]!.take.name : `All ${countWords(now.takes.length, "take")}`;
  return (
    <p className="mt-3 text-sm text-soft" data-testid="rule-tally">
      {inOpen !== "" && (
        <>
          <b className="text-ink">{evaluated!.take.name}</b>: {inOpen}.{" "}
        </>
      )}
      <b className="text-ink">{where}</b>: {inAll}.
    </p>
  );
}
