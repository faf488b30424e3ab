import { useEffect, useMemo, useState } from "react";
import { takeBackChange, type Change, type Check, type Kit, type Take } from "#core";
import { Button } from "../ui/Button";
import { formatChanges } from "../parts/model/changeWords";
import { useWorkbench } from "../document/workbenchContext";
import { useWorkers } from "../judging/workers";
import type { Blame } from "../judging/jobs/blame";

/** The maximum number of past versions searched, latest first. */
const MAX_PAST_VERSIONS = 200;

/** The most causes that are listed. */
const MAX_CAUSES = 4;

/** One cause: its changes as sentences, and a button that takes them back in one edit. */
function Cause({ old, kit, changes }: { old: Kit; kit: Kit; changes: readonly Change[] }) {
  const workbench = useWorkbench();
  const sentences = formatChanges(old, kit, changes);
  const takeBack = () =>
    workbench.editKit(`took back: ${sentences.join("; ")}`, now => changes.reduce(takeBackChange, now));
  return (
    <li>
      {sentences.map(sentence => (
        <p key={sentence}>{sentence}.</p>
      ))}
      <Button look="quiet" className="-ml-2" onClick={takeBack}>
        {changes.length === 1 ? "Undo this change" : `Undo these ${changes.length} changes together`}
      </Button>
    </li>
  );
}

/** Searches, on a click, for the recent changes that broke a check, and offers to take them back. */
export function Broken({ kit, check, take }: { kit: Kit; check: Check; take: Take }) {
  const workbench = useWorkbench();
  const { jobs } = useWorkers();
  // Changing any of these makes the answer one to another question.
  const subject = useMemo(() => ({ kit, check, take }), [kit, check, take]);
  const [found, setFound] = useState<{ of: object; blame: Blame | undefined } | undefined>();
  const [asked, setAsked] = useState<{ stop: () => void } | undefined>();
  const [trouble, setTrouble] = useState("");
  useEffect(() => () => asked?.stop(), [asked]);
  const ask = () => {
    const states = workbench.history.getState().pastStates as readonly { readonly kit?: Kit }[];
    const past = [...new Set(states.map(state => state.kit))].filter(one => one !== undefined && one !== kit);
    const question = { kit, past: (past as Kit[]).reverse().slice(0, MAX_PAST_VERSIONS), check };
    const own = jobs.ask({ job: "blame", question, takes: [take], lane: "blame" });
    setAsked(own);
    setTrouble("");
    void own.outcome.then(outcome => {
      setAsked(undefined);
      if (outcome.state === "done") setFound({ of: subject, blame: outcome.value });
      if (outcome.state === "failed") setTrouble(outcome.reason);
    });
  };
  if (found?.of !== subject)
    return (
      <>
        {trouble && (
          <p role="alert" className="text-foxglove">
            The edits could not be searched: {trouble}.
          </p>
        )}
        <Button look="quiet" className="-ml-2" disabled={asked !== undefined} onClick={ask}>
          {asked ? "Going back through the edits…" : "What broke it?"}
        </Button>
      </>
    );
  const { blame } = found;
  if (!blame)
    return (
      <p className="text-soft">It has not held by any edit that can still be undone: it never did here.</p>
    );
  const edits = blame.editsAgo === 1 ? "one edit ago" : `${blame.editsAgo} edits ago`;
  if (blame.causes.length === 0)
    return (
      <p className="text-soft">
        It held {edits}; no part of the {blame.changes.length} changes since then could be found that mends
        it.
      </p>
    );
  const isOne = blame.causes.length === 1;
  return (
    <div data-testid="blame">
      <p>
        It held {edits}. {isOne ? "The cause:" : "Each of these mends it when it is taken back:"}
      </p>
      <ul className="ml-4 list-disc">
        {blame.causes.slice(0, MAX_CAUSES).map((cause, n) => (
          <Cause key={n} old={blame.heldBy} kit={kit} changes={cause} />
        ))}
      </ul>
      {blame.causes.length > MAX_CAUSES && (
        <p className="text-soft">and {blame.causes.length - MAX_CAUSES} more</p>
      )}
    </div>
  );
}
