import { useMemo } from "react";
import { useStore } from "zustand";
import type { Choice } from "../ui/ChoiceWord";
import type { RowOrder, RowsShown } from "../store/library";
import { ruleAt, type RulePlace } from "../store/ruleEdits";
import { arrangeTape } from "../store/workbench";
import { useWorkbench } from "../store/useWorkbench";
import type { RowsWanted } from "./arrangeRows";
import { rowsAbout } from "./rowsAbout";
import { tapeLook } from "./tapeStore";

/** Which rows are shown: while a rule is being shaped those about it, elsewhere all, unless someone chose otherwise. */
export function shownRows({ inShape = "rule", elsewhere = "all" }: RowOrder, isShaping: boolean): RowsShown {
  return isShaping ? inShape : elsewhere;
}

/** What the tape's rows are held down to just now, for `arrangeRows`. */
export function useShownRows(about: RulePlace | undefined): RowsWanted["only"] {
  const kit = useWorkbench(state => state.kit);
  const shown = useWorkbench(state => shownRows(state.rows, about !== undefined));
  return useMemo(() => {
    if (shown === "rule") return kit && about ? rowsAbout(kit, about) : undefined;
    return shown === "stirring" ? shown : undefined;
  }, [kit, about, shown]);
}

/** The choice of rows for the dock: what is chosen, what there is, and how to choose. */
export function useRowChoice(): {
  value: RowsShown;
  choices: readonly Choice[];
  onChoose: (value: string) => void;
} {
  const about = useStore(tapeLook, look => look.about);
  const value = useWorkbench(state => shownRows(state.rows, about !== undefined));
  const name = useWorkbench(state => (state.kit && about && ruleAt(state.kit, about)?.name) || "this rule");
  const place = about ? "inShape" : "elsewhere";
  return {
    value,
    choices: [
      { value: "all", label: "all rows" },
      {
        value: "stirring",
        label: "rows that stir",
        hint: "Only those on which something happens in this take.",
      },
      ...(about
        ? [{ value: "rule", label: `rows of ${name}`, hint: "What it listens to, needs, and competes with." }]
        : []),
    ],
    onChoose: chosen => arrangeTape(rows => ({ ...rows, [place]: chosen as RowsShown })),
  };
}
