import { useMemo } from "react";
import type { Rules } from "#stage";
import { ruleAt, type RulePlace } from "../../edits/ruleEdits";
import { Button } from "../../ui/Button";
import { isStirring } from "../model/arrangeRows";
import { buildTape } from "../model/buildTape";
import { rowsOfRule } from "../model/rowsAbout";
import { keyOfRow, type TapeModel } from "../model/tapeRows";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { useJudging } from "../../judging/context";
import { isLong } from "../../judging/longTake";

/** Returns whether a row of a tape has any content. */
function stirsOn({ rows }: TapeModel, key: string): boolean {
  return rows.some(row => keyOfRow(row) === key && isStirring(row));
}

/**
 * Shown over the tape while the rule being shaped has no content on it: leads to a take that has some, or
 * explains how to record one.
 */
export function QuietNote({ rules, about, whole }: { rules: Rules; about: RulePlace; whole: TapeModel }) {
  const workbench = useWorkbench();
  const { judge } = useJudging();
  const takes = useDocument(state => state.takes);
  const [key] = rowsOfRule(rules.kit, about);
  const isQuiet = key !== undefined && whole.frames > 0 && !stirsOn(whole, key);
  const other = useMemo(() => {
    if (!isQuiet || key === undefined) return undefined;
    // Very long takes are skipped, because they are not evaluated yet.
    return takes.find(
      take =>
        !isLong(take, rules.program.rateHz) &&
        stirsOn(buildTape(rules, judge.evaluate(rules, take).trace, take), key),
    );
  }, [isQuiet, judge, rules, takes, key]);
  if (!isQuiet) return null;
  return (
    <p
      className="absolute right-3 bottom-2 flex items-center gap-2 rounded-stone bg-paper px-3 py-1 text-sm text-soft"
      data-testid="quiet"
    >
      Nothing of {ruleAt(rules.kit, about)?.name ?? "this rule"} in this take.
      {other ? (
        <Button onClick={() => workbench.openTake(other.id)}>Open {other.name}</Button>
      ) : (
        " Try it at the right and keep that, or paint a press."
      )}
    </p>
  );
}
