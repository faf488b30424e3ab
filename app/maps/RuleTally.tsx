import {
  countWords,
  formatMoveCounts,
  formatPatternCounts,
  formatPromptCounts,
  sumRuleCounts,
  type CountedList,
  type Kit,
  type Program,
  type RuleCounts,
} from "#core";
import { useEvaluated, useSoundKit } from "../document/evaluationContext";
import { useTakes } from "./useTakes";

/** Formats the counts of one rule, summed over takes. */
function wordsOf(
  program: Program,
  takes: readonly RuleCounts[],
  kit: Kit,
  list: CountedList,
  index: number,
): string {
  const nameOfMove = (move: number) => kit.moves?.[move]?.name ?? "another move";
  if (list === "moves") return formatMoveCounts(sumRuleCounts(program, takes, list, index), nameOfMove);
  return list === "patterns"
    ? formatPatternCounts(sumRuleCounts(program, takes, list, index))
    : formatPromptCounts(sumRuleCounts(program, takes, list, index), kit.prompts?.[index]?.grades);
}

/**
 * The counts of a rule: fires, or requests, performances and losses, in the open take and in all; nothing while the kit has
 * faults, as the rules that are evaluated then are those before, at other places.
 */
export function RuleTally({ kit, list, index }: { kit: Kit; list: CountedList; index: number }) {
  const evaluated = useEvaluated();
  const isSound = useSoundKit() === kit;
  const now = useTakes();
  if (!isSound || !now || now.takes.length === 0) return null;
  const open = now.reads.find(({ of }) => of === evaluated);
  const words = (takes: readonly RuleCounts[]) => wordsOf(now.program, takes, kit, list, index);
  const inAll = words(now.reads.map(({ outcomes }) => outcomes.counts));
  const inOpen = open && now.takes.length > 1 ? words([open.outcomes.counts]) : "";
  const count = countWords(now.takes.length + now.pending, "take");
  const where =
    now.pending > 0
      ? `${now.takes.length} of ${count} so far`
      : now.takes.length === 1
        ? now.takes[0]!.take.name
        : `All ${count}`;
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
