import { useMemo } from "react";
import type { Kit, Program, Take } from "#core";
import { LONG_TAKE_FRAMES } from "../../judging/judged";
import { ruleAt, type RulePlace } from "../../edits/ruleEdits";
import { evaluateOnce, openTake, type Evaluated } from "../../document/workbench";
import { useWorkbench } from "../../document/useWorkbench";
import { Button } from "../../ui/Button";
import { isStirring } from "../model/arrangeRows";
import { buildTape } from "../model/buildTape";
import { rowsOfRule } from "../model/rowsAbout";
import { keyOfRow, type TapeModel } from "../model/tapeRows";

/** Does anything happen on a row of a tape? */
function stirsOn({ rows }: TapeModel, key: string): boolean {
  return rows.some(row => keyOfRow(row) === key && isStirring(row));
}

/** The first of the other takes in which something happens on a row; very long ones are not looked at. */
function findTake(kit: Kit, program: Program, takes: readonly Take[], key: string): Take | undefined {
  return takes.find(
    take =>
      take.frames <= LONG_TAKE_FRAMES &&
      stirsOn(buildTape(kit, program, evaluateOnce(program, take).trace, take), key),
  );
}

/** Said over the tape while the rule being shaped has nothing on it: where there is something, or how to make some. */
export function QuietNote({
  kit,
  evaluated,
  about,
  whole,
}: {
  kit: Kit;
  evaluated: Evaluated;
  about: RulePlace;
  whole: TapeModel;
}) {
  const takes = useWorkbench(state => state.takes);
  const [key] = rowsOfRule(kit, about);
  const isQuiet = key !== undefined && whole.frames > 0 && !stirsOn(whole, key);
  const other = useMemo(
    () => (isQuiet && key !== undefined ? findTake(kit, evaluated.program, takes, key) : undefined),
    [isQuiet, kit, evaluated.program, takes, key],
  );
  if (!isQuiet) return null;
  return (
    <p
      className="absolute right-3 bottom-2 flex items-center gap-2 rounded-stone bg-paper px-3 py-1 text-sm text-soft"
      data-testid="quiet"
    >
      Nothing of {ruleAt(kit, about)?.name ?? "this rule"} in this take.
      {other ? (
        <Button onClick={() => openTake(other.id)}>Open {other.name}</Button>
      ) : (
        " Try it at the right and keep that, or paint a press."
      )}
    </p>
  );
}
