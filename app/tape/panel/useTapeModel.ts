import { useMemo, useState } from "react";
import type { Fate } from "#core";
import { useEvaluated } from "../../document/evaluationContext";
import { useDocument } from "../../document/workbenchContext";
import { useJudging } from "../../judging/context";
import type { Evaluated } from "../../judging/judge";
import { useTapeLook } from "../hand/context";
import { arrangeRows, type RowsWanted } from "../model/arrangeRows";
import { listChanges, type TapeChange } from "../model/changes";
import { pathOfFate, rowsOfFate, type TapePoint } from "../model/pressOf";
import type { TapeModel } from "../model/tapeRows";
import { useShownRows } from "./RowChoice";
import { useWholeTape } from "./useWholeTape";

/** The open take as shown on the tape, and its selection. */
export interface ShownTape {
  readonly evaluated: Evaluated | undefined;
  /** All rows, and those shown, in order. */
  readonly whole: TapeModel;
  readonly model: TapeModel;
  /** The current selection of rows. */
  readonly selection: RowsWanted;
  readonly fate: Fate | undefined;
  readonly links: readonly TapePoint[];
  readonly changes: readonly TapeChange[];
  /** Freezes the rows while a window is pulled. */
  readonly hold: (selection: RowsWanted | undefined) => void;
}

/**
 * Builds the rows of the open take. `wanted` is part of a name; while playing, the selection applies to the
 * live session.
 */
export function useTapeModel(wanted: string, isLive: boolean): ShownTape {
  const { judge } = useJudging();
  const { evaluated, whole } = useWholeTape(useEvaluated());
  const chosen = useTapeLook(look => look.fate);
  const before = useTapeLook(look => look.before);
  const about = useTapeLook(look => look.about);
  const isPainting = useTapeLook(look => look.tool === "paint");
  const rows = useDocument(state => state.settings);
  const [held, hold] = useState<RowsWanted | undefined>();
  // While painting, rows neither appear nor disappear: all are shown instead of those with content.
  const only = useShownRows(about, isLive || isPainting ? undefined : whole);
  const fate = useMemo(
    () =>
      evaluated && chosen && !isLive
        ? judge
            .outcomesOf(evaluated)
            .presses.find(item => item.control === chosen.control && item.frame === chosen.frame)
        : undefined,
    [judge, evaluated, chosen, isLive],
  );
  const selection = useMemo(() => {
    // The path of a press is shown completely, whatever the selection.
    const also = fate && evaluated ? rowsOfFate(evaluated.program, whole, fate) : [];
    return held ?? { word: wanted, isPainting, only: only && new Set([...only, ...also]) };
  }, [held, wanted, isPainting, only, fate, evaluated, whole]);
  const model = useMemo(() => arrangeRows(whole, rows, selection), [whole, rows, selection]);
  const links = useMemo(
    () => (fate && evaluated ? pathOfFate(evaluated.program, model, fate) : []),
    [fate, evaluated, model],
  );
  const changes = useMemo(
    () => (evaluated && before ? listChanges(model, evaluated.program, before.trace, evaluated.trace) : []),
    [evaluated, before, model],
  );
  return { evaluated, whole, model, selection, fate, links, changes, hold };
}
