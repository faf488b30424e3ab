import { memo, useMemo } from "react";
import { ChoiceWord } from "../../ui/ChoiceWord";
import type { KitSettings, RowsShown } from "../../storage/records";
import { ruleAt, type RulePlace } from "../../edits/ruleEdits";
import { listStirring, type RowsWanted } from "../model/arrangeRows";
import { rowsAbout } from "../model/rowsAbout";
import type { TapeModel } from "../model/tapeRows";
import { useDocument, useWorkbench } from "../../document/workbenchContext";
import { useTapeLook } from "../hand/context";

/**
 * Returns which rows are shown: while a rule is being shaped those related to it, elsewhere those with
 * content, unless the user chose otherwise.
 */
export function shownRows(
  { inShape = "rule", elsewhere = "stirring" }: KitSettings,
  isShaping: boolean,
): RowsShown {
  return isShaping ? inShape : elsewhere;
}

/**
 * Returns the keys of the rows to show, for `arrangeRows`; a live session has no `whole` yet, and any row may
 * get content.
 */
export function useShownRows(about: RulePlace | undefined, whole: TapeModel | undefined): RowsWanted["only"] {
  const kit = useDocument(state => state.kit);
  const shown = useDocument(state => shownRows(state.settings, about !== undefined));
  return useMemo(() => {
    if (shown === "rule") return kit && about ? rowsAbout(kit, about) : undefined;
    return shown === "stirring" && whole ? listStirring(whole) : undefined;
  }, [kit, about, shown, whole]);
}

/** Chooses which rows the tape shows; stored with the kit, separately for Shape and elsewhere. */
export const RowChoice = memo(function RowChoice() {
  const workbench = useWorkbench();
  const about = useTapeLook(look => look.about);
  const value = useDocument(state => shownRows(state.settings, about !== undefined));
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
          label: "rows with events",
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
      onChoose={chosen =>
        workbench.updateKitSettings(settings => ({ ...settings, [place]: chosen as RowsShown }))
      }
    />
  );
});
