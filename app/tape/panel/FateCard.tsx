import { useMemo } from "react";
import { formatFate, formatPrice, formatRepair, nameOf, explainingLoss, writeAt, type Fate } from "#core";
import { isMarkedUnmeant, toggleUnmeant } from "../../edits/markUnmeant";
import { Button } from "../../ui/Button";
import { useRepairs } from "./useRepairs";
import { useChecking } from "../../document/checksContext";
import { useSoundKit } from "../../document/evaluationContext";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { useJudging } from "../../judging/context";
import { useTape } from "../hand/context";
import type { Evaluated } from "../../judging/judge";
import { isLong } from "../../judging/longTake";

/** The number of repairs offered, nearest first. */
const MAX_REPAIRS = 3;

/** Buttons that create checks from a press's fate. */
function FateChecks({ evaluated, fate }: { evaluated: Evaluated; fate: Fate }) {
  const checking = useChecking();
  const { judge } = useJudging();
  const { program, rules } = evaluated;
  const control = program.controls[fate.control]!;
  const name = nameOf(rules.kit, "controls", control.id);
  const use = fate.uses.find(({ kind }) => kind === "move");
  const loss = explainingLoss(fate);
  // A move makes one request per frame.
  const endOf = (move: number, made: number) =>
    judge.outcomesOf(evaluated).requests.find(request => request.move === move && request.made === made)
      ?.endNote;
  const must = use && endOf(use.index, use.made);
  const never = loss && endOf(loss.move, loss.made);
  return (
    <p className="flex flex-wrap items-center gap-x-1 text-soft">
      Check that
      {must !== undefined && (
        <Button look="quiet" onClick={() => checking.mustHappen(must)}>
          it becomes this here
        </Button>
      )}
      {use === undefined && never !== undefined && (
        <Button look="quiet" onClick={() => checking.mustNever(never)}>
          this is never lost so
        </Button>
      )}
      <Button look="quiet" onClick={() => checking.mustAnswer(control.id)}>
        every press of {name} is answered
      </Button>
    </p>
  );
}

/** Whether the player meant the press, and the button that marks it: studies count the meant ones. */
function MeantLine({ evaluated, fate }: { evaluated: Evaluated; fate: Fate }) {
  const workbench = useWorkbench();
  const { program, take } = evaluated;
  const isUnmeant = isMarkedUnmeant(program, take, fate.control, fate.frame);
  const name = nameOf(evaluated.rules.kit, "controls", program.controls[fate.control]!.id);
  const toggle = () =>
    workbench.editTake(
      isUnmeant ? `meant: ${name} at ${fate.frame}f` : `not meant: ${name} at ${fate.frame}f`,
      take.id,
      now => toggleUnmeant(program, now, fate.control, fate.frame),
    );
  return (
    <p className="flex flex-wrap items-center gap-x-1 text-soft">
      {isUnmeant ? "Marked as not meant: Hands leaves it out." : "A slip, or pressed twice?"}
      <Button look="quiet" aria-pressed={isUnmeant} onClick={toggle}>
        {isUnmeant ? "It was meant" : "Mark as not meant"}
      </Button>
    </p>
  );
}

/**
 * The fate of one press as a sentence; for a lost one the smallest changes that would have saved it, each
 * with its rule, its price and a button.
 */
export function FateCard({ evaluated, fate }: { evaluated: Evaluated; fate: Fate }) {
  const workbench = useWorkbench();
  const { look } = useTape();
  // A repair changes the open kit, so there is none while that has faults and an older version judged the
  // press.
  const isSound = useSoundKit() === evaluated.rules.kit;
  const asked = useMemo(
    () => (isSound && (fate.outcome === "lost" || fate.outcome === "lapsed") ? [fate] : []),
    [isSound, fate],
  );
  const takes = useDocument(state => state.takes);
  const others = useMemo(
    () => takes.filter(take => take !== evaluated.take && !isLong(take, evaluated.program.rateHz)),
    [takes, evaluated],
  );
  const { found, isWhole, trouble } = useRepairs(evaluated, { fates: asked, isNearestOnly: false, others });
  const repairs = found[0]?.slice(0, MAX_REPAIRS) ?? [];
  const close = () => look.setState({ fate: undefined });
  return (
    <div
      role="region"
      aria-label="Fate of the press"
      className="flex w-80 shrink-0 items-start overflow-y-auto border-l-2 border-ink bg-paper py-2 pr-1 pl-4 text-sm max-lg:w-64"
      data-testid="fate"
    >
      <div className="flex min-w-0 grow flex-col gap-2">
        <p>{formatFate(evaluated.rules, evaluated.trace, fate)}</p>
        {repairs.map(repair => (
          <p key={repair.path.join()}>
            <Button
              onClick={() => workbench.editKit(`saved a press`, now => writeAt(now, repair.path, repair.to))}
              className="border-moss text-left font-semibold whitespace-normal! text-moss"
            >
              {formatRepair(evaluated.rules.kit, repair)}
            </Button>
            <span className="block text-soft">{formatPrice(evaluated.rules.kit, repair.price)}</span>
          </p>
        ))}
        {isWhole && repairs.length === 0 && fate.outcome === "lost" && (
          <p className="text-soft">No single number within half a second would have saved it.</p>
        )}
        <FateChecks evaluated={evaluated} fate={fate} />
        <MeantLine evaluated={evaluated} fate={fate} />
        {trouble && <p className="text-foxglove">What would have saved it was not found: {trouble}</p>}
      </div>
      <Button look="quiet" aria-label="Close the fate" onClick={close}>
        ×
      </Button>
    </div>
  );
}
