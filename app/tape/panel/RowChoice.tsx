import { memo, useMemo } from "react";
import { useStore } from "zustand";
import { ChoiceWord } from "../../ui/ChoiceWord";
import type { RowOrder, RowsShown } from "../../storage/library";
import { ruleAt, type RulePlace } from "../../edits/ruleEdits";
import { arrangeTape } from "../../document/workbench";
import { useWorkbench } from "../../document/useWorkbench";
import { listStirring, type RowsWanted } from "../model/arrangeRows";
import { rowsAbout } from "../model/rowsAbout";
import type { TapeModel } from "../model/tapeRows";
import { tapeLook } from "../tapeLook";

/** Which rows are shown: while a rule is being shaped those about it, elsewhere those that stir, unless someone chose otherwise. */
export function shownRows(
  { inShape = "rule", elsewhere = "stirring" }: RowOrder,
  isShaping: boolean,
): RowsShown {
  return isShaping ? inShape : elsewhere;
}

/** What the tape's rows are held down to just now, for `arrangeRows`; what is being played has no `whole` yet, and may stir anywhere. */
export function useShownRows(about: RulePlace | undefined, whole: TapeModel | undefined): RowsWanted["only"] {
  const kit = useWorkbench(state => state.kit);
  const shown = useWorkbench(state => shownRows(state.rows, about !== undefined));
  return useMemo(() => {
    if (shown === "rule") return kit && about ? rowsAbout(kit, about) : undefined;
    return shown === "stirring" && whole ? listStirring(whole) : undefined;
  }, [kit, about, shown, whole]);
}

/** Which rows the tape shows: chosen over their names, kept with the kit, apart for Shape and for elsewhere. */
export const RowChoice = memo(function RowChoice() {
  const about = useStore(tapeLook, look => look.about);
  const value = useWorkbench(state => shownRows(state.rows, about !== undefined));
  const name = useWorkbench(state => (state.kit && about && ruleAt(state.kit, about)?.name) || "this rule");
  const place = about ? "inShape" : "elsewhere";
  return (
    <ChoiceWord
      label="Rows shown"
      isTight
      value={value}
      choices={[
        { value: "all", label: "all rows" },
        {
          value: "stirring",
          label: "rows that stir",
          hint: "Only those on which something happens in this take.",
        },
        ...(about
          ? [
              {
                value: "rule",
                label: `rows of ${name}`,
                hint: "What it listens to, needs, and competes with.",
              },
            ]
          : []),
      ]}
      onChoose={chosen => arrangeTape(rows => ({ ...rows, [place]: chosen as RowsShown }))}
    />
  );
});
