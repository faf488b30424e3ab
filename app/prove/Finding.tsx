import { useEffect, useMemo, useState } from "react";
import {
  acceptFound,
  foreignWords,
  listStory,
  type Acceptance,
  type Check,
  type Kit,
  type Take,
} from "#core";
import { useProof, useProofStore } from "../document/checksContext";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { useWorkers } from "../judging/workers";
import { Button } from "../ui/Button";
import { Broken } from "./Broken";
import { countTurns, readCell, type Turns } from "./model/cells";
import { StoryLines } from "./StoryLines";

/** Judges a changed check on all takes; returns how many of its results turn or why that is not known, undefined until then. */
function useTurns(kit: Kit, check: Check, becomes: Check): Turns | string | undefined {
  const { jobs } = useWorkers();
  const proof = useProofStore();
  const takes = useDocument(state => state.takes);
  const key = useMemo(() => ({ kit, check, becomes, takes }), [kit, check, becomes, takes]);
  const [known, setKnown] = useState<{ readonly of: object; readonly turns: Turns | string }>();
  useEffect(() => {
    const asked = jobs.ask({ job: "prove", question: { kit, checks: [becomes] }, takes, lane: "accept" });
    void asked.outcome.then(outcome => {
      if (outcome.state === "failed") setKnown({ of: key, turns: outcome.reason });
      if (outcome.state === "done")
        setKnown({ of: key, turns: countTurns(proof.getState(), check.id, takes, outcome.value) });
    });
    return asked.stop;
  }, [jobs, proof, key, kit, check, becomes, takes]);
  return known?.of === key ? known.turns : undefined;
}

/** Accepts the found value as the new expectation, and shows beforehand which results turn. */
function Accept({ kit, check, offered }: { kit: Kit; check: Check; offered: Acceptance }) {
  const workbench = useWorkbench();
  const turns = useTurns(kit, check, offered.becomes);
  const accept = () =>
    workbench.editChecks(`accepted ${offered.words}`, now =>
      now.map(item => (item.id === check.id ? offered.becomes : item)),
    );
  return (
    <div>
      <Button
        className="border-moss text-left font-semibold whitespace-normal! text-moss"
        aria-describedby="accepting"
        onClick={accept}
      >
        Accept {offered.words}
      </Button>
      <p id="accepting" data-testid="accepting" className="mt-0.5 min-h-5 text-soft">
        {typeof turns === "string" && `It could not be tried on its takes: ${turns}.`}
        {typeof turns === "object" && (
          <>
            Over all its takes: {turns.held} would newly hold,{" "}
            <span className={turns.broke > 0 ? "font-semibold text-foxglove" : ""}>
              {turns.broke} would break
            </span>
            .
          </>
        )}
      </p>
    </div>
  );
}

/** The actions for a check's finding in the selected take. */
export function Finding({ kit, check, take }: { kit: Kit; check: Check; take: Take }) {
  const proof = useProof(state => state);
  const evaluated = useEvaluation(state => state.evaluated);
  const isOpen = evaluated?.take.id === take.id && evaluated.rules.kit === kit;
  const story = useMemo(
    () => (isOpen && evaluated ? listStory(evaluated.program, evaluated.trace) : undefined),
    [isOpen, evaluated],
  );
  const foreign = foreignWords(take, kit);
  const { verdict, words, look } = readCell(proof, check, take.id);
  const offered = useMemo(
    () => (verdict && verdict.rate === kit.rate && story ? acceptFound(check, verdict, story) : undefined),
    [check, verdict, kit.rate, story],
  );
  return (
    <section
      aria-label="Found in the chosen take"
      className="mt-3 border-t border-line pt-2"
      data-testid="finding"
    >
      <p>
        In <b>{take.name || take.id}</b>:{" "}
        <span className={look === "fails" ? "text-foxglove" : ""}>{words}</span>.
      </p>
      {foreign && <p className="text-soft">This take {foreign}.</p>}
      {"same" in check && look === "fails" && story && verdict && (
        <StoryLines
          kit={kit}
          kept={check.same}
          now={story}
          agree={verdict.reached ?? 0}
          frames={evaluated?.columns.frames ?? 1}
        />
      )}
      {look === "fails" && (
        <div className="mt-1 flex flex-col items-start gap-1">
          {offered && <Accept kit={kit} check={check} offered={offered} />}
          <Broken key={`${check.id} ${take.id}`} kit={kit} check={check} take={take} />
        </div>
      )}
    </section>
  );
}
