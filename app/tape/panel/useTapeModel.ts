import { useMemo, useState } from "react";
import type { Fate } from "#core";
import { useDesk, useDocument, useEvaluated } from "../../document/context";
import type { Evaluated } from "../../judging/judge";
import { useTapeLook } from "../hand/context";
import { arrangeRows, type RowsWanted } from "../model/arrangeRows";
import { listChanges, type TapeChange } from "../model/changes";
import { pathOfFate, rowsOfFate, type TapePoint } from "../model/pressOf";
import type { TapeModel } from "../model/tapeRows";
import { useShownRows } from "./RowChoice";
import { useWholeTape } from "./useWholeTape";

/** The open take as the tape shows it, and what is said over it. */
export interface ShownTape {
  readonly evaluated: Evaluated | undefined;
  /** All rows, and those shown, in their order. */
  readonly whole: TapeModel;
  readonly model: TapeModel;
  /** Which rows are wanted just now. */
  readonly wish: RowsWanted;
  readonly fate: Fate | undefined;
  readonly links: readonly TapePoint[];
  readonly changes: readonly TapeChange[];
  /** While a window is pulled the rows stay as they are under the hand. */
  readonly hold: (wish: RowsWanted | undefined) => void;
}

/** Puts the rows of the open take together. `wanted`: part of a name; while hands play, what is asked of rows holds for them. */
export function useTapeModel(wanted: string, isLive: boolean): ShownTape {
  const { judge } = useDesk();
  const { evaluated, whole } = useWholeTape(useEvaluated());
  const chosen = useTapeLook(look => look.fate);
  const before = useTapeLook(look => look.before);
  const about = useTapeLook(look => look.about);
  const isPainting = useTapeLook(look => look.tool === "paint");
  const rows = useDocument(state => state.rows);
  const [held, hold] = useState<RowsWanted | undefined>();
  // While painting rows neither come nor go under the hand: where those that stir are wanted, all stand.
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
  const wish = useMemo(() => {
    // The way of a press is shown whole, whatever rows were asked for.
    const also = fate && evaluated ? rowsOfFate(evaluated.program, whole, fate) : [];
    return held ?? { word: wanted, isPainting, only: only && new Set([...only, ...also]) };
  }, [held, wanted, isPainting, only, fate, evaluated, whole]);
  const model = useMemo(() => arrangeRows(whole, rows, wish), [whole, rows, wish]);
  const links = useMemo(
    () => (fate && evaluated ? pathOfFate(evaluated.program, model, fate) : []),
    [fate, evaluated, model],
  );
  const changes = useMemo(
    () => (evaluated && before ? listChanges(model, evaluated.program, before.trace, evaluated.trace) : []),
    [evaluated, before, model],
  );
  return { evaluated, whole, model, wish, fate, links, changes, hold };
}
