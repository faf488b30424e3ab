import { performedOf, type Take } from "#core";
import type { Rules } from "#stage";
import { Overview } from "./Overview";
import { useEvaluation } from "../../document/evaluationContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { useJudging } from "../../judging/context";
import type { Evaluated } from "../../judging/judge";
import { isLong } from "../../judging/longTake";
import { useTapeLook } from "../hand/context";

/** Formats the change of a count since before a pull: "+1", "−2"; empty if unchanged. */
function Since({ now, before }: { now: number; before: number | undefined }) {
  if (before === undefined || before === now) return null;
  return <b className="text-dew"> {now > before ? `+${now - before}` : `−${before - now}`}</b>;
}

function Strip({ take, rules, before }: { take: Take; rules: Rules; before: Rules | undefined }) {
  const workbench = useWorkbench();
  const { judge } = useJudging();
  if (isLong(take, rules.program.rateHz))
    return <span className="text-soft">a long take; it is worked out when it is open</span>;
  const count = (evaluated: Evaluated) => {
    const { counts } = judge.outcomesOf(evaluated);
    const performed = counts.moves.reduce((sum, move) => sum + performedOf(move), 0);
    return { performed, lost: counts.presses.lost };
  };
  const evaluated = judge.evaluate(rules, take);
  const now = count(evaluated);
  const was = before && count(judge.evaluate(before, take));
  return (
    <>
      <Overview
        evaluated={evaluated}
        views={undefined}
        onGo={() => workbench.openTake(take.id)}
        label={`All of ${take.name}`}
      />
      <span className="w-60 shrink-0 whitespace-nowrap" data-testid={`strip-${take.id}`}>
        {now.performed} performed
        <Since now={now.performed} before={was?.performed} />
        {", "}
        <span className={now.lost > 0 ? "text-foxglove" : "text-soft"}>
          {now.lost} {now.lost === 1 ? "press" : "presses"} lost
        </span>
        <Since now={now.lost} before={was?.lost} />
      </span>
    </>
  );
}

/** The other takes of the kit, each as a strip; shows how a pull changes their counts. */
export function TakeStrips() {
  const workbench = useWorkbench();
  const takes = useDocument(state => state.takes);
  const openId = useDocument(state => state.openTakeId);
  const before = useTapeLook(look => look.before?.rules);
  const rules = useEvaluation(state => state.rules);
  if (!rules) return null;
  const others = takes.filter(take => take.id !== openId);
  return (
    <ul
      aria-label="Other takes"
      className="max-h-[104px] shrink-0 overflow-auto border-b border-line px-5 py-1 text-sm"
    >
      {others.map(take => (
        <li key={take.id} className="flex h-8 items-center gap-4">
          <button
            type="button"
            className="w-44 shrink-0 truncate text-left text-moss underline-offset-4 hover:underline"
            onClick={() => workbench.openTake(take.id)}
          >
            {take.name} <span className="font-mono text-soft">{Math.ceil(take.frames)}f</span>
          </button>
          <Strip take={take} rules={rules} before={before} />
        </li>
      ))}
      {others.length === 0 && <li className="py-1 text-soft">No other take yet. Record one more in Play.</li>}
    </ul>
  );
}
