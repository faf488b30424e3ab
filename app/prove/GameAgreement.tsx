import { useEffect, useState } from "react";
import { addCounts, compareTake, countDifferences, formatCounts, type DifferenceCounts } from "#link";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useJudging } from "../judging/context";
import { isLong } from "../judging/longTake";
import { Button } from "../ui/Button";

interface Compared {
  readonly takeId: string;
  readonly name: string;
  readonly counts: DifferenceCounts;
}

const differing = ({ apart, onlyGame, onlyRules }: DifferenceCounts) => apart + onlyGame + onlyRules;

/** The takes named at most; the others are counted. */
const MAX_NAMED = 4;

/** Compares the takes of running games with the rules, one after the other; undefined until all are. Leaves out long ones. */
function useCompared(): readonly Compared[] | undefined {
  const { judge, yieldToUi } = useJudging();
  const rules = useEvaluation(state => state.rules);
  const takes = useDocument(state => state.takes);
  const [compared, setCompared] = useState<readonly Compared[] | undefined>();
  useEffect(() => {
    let isCurrent = true;
    const compare = async () => {
      const found: Compared[] = [];
      for (const take of takes) {
        if (take.did === undefined) continue;
        // A newer edit has replaced this comparison meanwhile, as in a drag.
        await yieldToUi();
        if (!rules || !isCurrent) return;
        // A long take is run in a worker when it is opened, and compared from then on.
        if (isLong(take, rules.program.rateHz) && !judge.known(rules, take)) continue;
        const { program, trace } = judge.evaluate(rules, take);
        found.push({
          takeId: take.id,
          name: take.name,
          counts: countDifferences(compareTake(program, trace, take)),
        });
      }
      if (isCurrent) setCompared(found);
    };
    void compare();
    return () => {
      isCurrent = false;
    };
  }, [judge, yieldToUi, rules, takes]);
  return compared;
}

/** The sum of what running games performed beside the rules, over all takes that have it; nothing without one. */
export function GameAgreement() {
  const workbench = useWorkbench();
  const compared = useCompared();
  if (!compared || compared.length === 0) return null;
  const sum = compared.map(({ counts }) => counts).reduce(addCounts);
  const wrong = compared.filter(({ counts }) => differing(counts) > 0);
  return (
    <section aria-label="The game beside the rules" className="border-t border-line px-5 py-2 text-sm">
      The game beside the rules, in {compared.length} {compared.length === 1 ? "take" : "takes"}:{" "}
      <b className={wrong.length > 0 ? "text-foxglove" : ""}>{formatCounts(sum)}</b>
      {wrong.slice(0, MAX_NAMED).map(({ takeId, name, counts }) => (
        <Button key={takeId} look="quiet" onClick={() => workbench.openTake(takeId)}>
          {name}: {differing(counts)} differ
        </Button>
      ))}
      {wrong.length > MAX_NAMED && (
        <span className="text-soft">and {wrong.length - MAX_NAMED} more takes</span>
      )}
    </section>
  );
}
