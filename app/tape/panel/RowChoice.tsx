import { memo, useMemo } from "react";
import { ChoiceWord } from "../../ui/ChoiceWord";
import type { RowOrder, RowsShown } from "../../storage/records";
import { ruleAt, type RulePlace } from "../../edits/ruleEdits";
import { listStirring, type RowsWanted } from "../model/arrangeRows";
import { rowsAbout } from "../model/rowsAbout";
import type { TapeModel } from "../model/tapeRows";
import { useDesk, useDocument } from "../../document/context";
import { useTapeLook } from "../hand/context";

/** Which rows are shown: while a rule is being shaped those about it, elsewhere those that stir, unless someone chose otherwise. */
export function shownRows(
  { inShape = "rule", elsewhere = "stirring" }: RowOrder,
  isShaping: boolean,
): RowsShown {
  return isShaping ? inShape : elsewhere;
}

/** What the tape's rows are held down to just now, for `arrangeRows`; what is being played has no `whole` yet, and may stir anywhere. */
export function useShownRows(about: RulePlace | undefined, whole: TapeModel | undefined): RowsWanted["only"] {
  const kit = useDocument(state => state.kit);
  const shown = useDocument(state => shownRows(state.rows, about !== undefined));
  return useMemo(() => {
    if (shown === "rule") return kit && about ? rowsAbout(kit, about) : undefined;
    return shown === "stirring" && whole ? listStirring(whole) : undefined;
  }, [kit, about, shown, whole]);
}

/** Which rows the tape shows: chosen over their names, kept with the kit, apart for Shape and for elsewhere. */
export const RowChoice = memo(function RowChoice() {
  const { workbench } = useDesk();
  const about = useTapeLook(look => look.about);
  const value = useDocument(state => shownRows(state.rows, about !== undefined));
  const name = useDocument(state => (state.kit && about && ruleAt(state.kit, about)?.name) || "this rule");
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
      onChoose={chosen => workbench.arrangeTape(rows => ({ ...rows, [place]: chosen as RowsShown }))}
    />
  );
});
