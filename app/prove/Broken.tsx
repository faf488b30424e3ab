import { useEffect, useState } from "react";
import type { Check, Kit, Take } from "#core";
import { Button } from "../ui/Button";
import { formatChange } from "../parts/model/changeWords";
import { useWorkbench } from "../document/workbenchContext";
import { useJudging } from "../judging/context";
import { takeBack, type Blame } from "../judging/jobs/blame";

/** The maximum number of past versions searched, latest first. */
const MAX_PAST_VERSIONS = 200;

/** Searches, on a click, for the smallest recent change that broke a check, and offers to revert it. */
export function Broken({ kit, check, take }: { kit: Kit; check: Check; take: Take }) {
  const workbench = useWorkbench();
  const { jobs } = useJudging();
  const [found, setFound] = useState<{ of: Kit; blame: Blame | undefined } | undefined>();
  const [asked, setAsked] = useState<{ stop: () => void } | undefined>();
  useEffect(() => () => asked?.stop(), [asked]);
  const ask = () => {
    const states = workbench.history.getState().pastStates as readonly { readonly kit?: Kit }[];
    const past = [...new Set(states.map(state => state.kit))].filter(one => one !== undefined && one !== kit);
    const question = { kit, past: (past as Kit[]).reverse().slice(0, MAX_PAST_VERSIONS), check };
    const own = jobs.ask({ job: "blame", question, takes: [take], lane: "blame" });
    setAsked(own);
    void own.outcome.then(outcome => {
      setAsked(undefined);
      if (outcome.state === "done") setFound({ of: kit, blame: outcome.value });
    });
  };
  if (found?.of !== kit)
    return (
      <Button look="quiet" className="-ml-2" disabled={asked !== undefined} onClick={ask}>
        {asked ? "Going back through the edits…" : "What broke it?"}
      </Button>
    );
  const { blame } = found;
  if (!blame)
    return (
      <p className="text-soft">It has not held by any edit that can still be undone: it never did here.</p>
    );
  const edits = blame.editsAgo === 1 ? "one edit ago" : `${blame.editsAgo} edits ago`;
  if (blame.mends.length === 0)
    return (
      <p className="text-soft">
        It held {edits}; no single change since then mends it alone. {blame.changes.length} places changed.
      </p>
    );
  return (
    <div data-testid="blame">
      <p>It held {edits}. Taken back alone, this mends it:</p>
      <ul>
        {blame.mends.slice(0, 4).map(change => (
          <li key={change.path.join()} className="flex items-baseline gap-2">
            <span className="min-w-0 grow">{formatChange(kit, change)}</span>
            <Button
              look="quiet"
              onClick={() =>
                workbench.editKit(`took back ${formatChange(kit, change)}`, now => takeBack(now, change))
              }
            >
              Take it back
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
