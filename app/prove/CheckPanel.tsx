import {
  describeCheck,
  formatFinding,
  formatPath,
  gateName,
  offerCheck,
  takeOut,
  writeAt,
  type Check,
  type Kit,
  type Take,
} from "#core";
import { Button } from "../ui/Button";
import { TextStone } from "../ui/TextStone";
import { useProof } from "../document/checksContext";
import { useWorkbench } from "../document/workbenchContext";
import { useTakeAway } from "../document/useTakeAway";
import { Sentence, type SentenceHand } from "../parts/Sentence";
import { Finding } from "./Finding";
import { missingTakes } from "./model/cells";

/** One check: its editable sentence, clauses to add, and its finding in the selected take. */
export function CheckPanel({
  kit,
  check,
  take,
  takes,
}: {
  kit: Kit;
  check: Check;
  take: Take | undefined;
  takes: readonly Take[];
}) {
  const workbench = useWorkbench();
  const takeAway = useTakeAway();
  const faults = useProof(proof => proof.faults.get(check.id));
  const change = (what: string, make: (was: Check) => Check) =>
    workbench.editChecks(what, now => now.map(item => (item.id === check.id ? make(item) : item)));
  const hand: SentenceHand = {
    write: (what, path, value) => change(what, was => writeAt(was, path, value)),
    takeOut: (what, path) => change(what, was => takeOut(was, path)),
  };
  const nameOfTake = (id: string) => takes.find(item => item.id === id)?.name || `“${id}”, which is not here`;
  const missing = missingTakes(check, takes);
  return (
    <div className="min-h-0 grow overflow-auto px-5 py-3 text-sm" data-testid="check-panel">
      <p className="text-base">
        <TextStone
          label="Name of this check"
          value={check.name}
          isStrong
          onChange={name => change(`renamed ${name}`, was => ({ ...was, name }))}
        />
      </p>
      <Sentence
        parts={describeCheck(check, { take: nameOfTake, gate: id => gateName(kit, id) })}
        base={["checks", check.id]}
        isSmall
        hand={hand}
      />
      {faults?.map(issue => (
        <p key={issue.path.join()} role="alert" className="text-foxglove">
          {issue.path.length > 0 && `${formatPath(issue.path)}: `}
          {formatFinding(issue)}.
        </p>
      ))}
      {missing.length > 0 && (
        <p className="text-foxglove">
          {missing.length === 1 ? "A take it names is" : `${missing.length} takes it names are`} not here:
          that never counts as holding.
        </p>
      )}
      {take && <Finding kit={kit} check={check} take={take} />}
      <p className="mt-2 -ml-2 flex flex-wrap gap-x-1" role="group" aria-label="This check">
        {offerCheck(
          check,
          kit,
          takes.map(item => item.id),
        ).map(offer => (
          <Button
            key={offer.words}
            look="quiet"
            onClick={() => change(`check ${offer.words}`, () => offer.becomes)}
          >
            {offer.words}
          </Button>
        ))}
        <Button
          look="quiet"
          onClick={() =>
            change(check.off ? "switched a check on" : "switched a check off", was => {
              const { off, ...rest } = was;
              return (off ? rest : { ...was, off: true }) as Check;
            })
          }
        >
          {check.off ? "Switch on" : "Switch off"}
        </Button>
        <Button
          look="quiet"
          onClick={() =>
            takeAway(
              `The check ${check.name || check.id} is deleted.`,
              workbench.editChecks("deleted a check", now => now.filter(item => item.id !== check.id)),
            )
          }
        >
          Delete this check
        </Button>
      </p>
    </div>
  );
}
