import { useMemo } from "react";
import { useStore } from "zustand";
import type { Kit, Take } from "#core";
import { compileFresh } from "../../judging/compileFresh";
import { LONG_TAKE_FRAMES } from "../../judging/judged";
import { evaluateOnce, type Evaluated } from "../../document/workbench";
import { useWorkbench } from "../../document/useWorkbench";
import { arrangeRows } from "../model/arrangeRows";
import { buildTape } from "../model/buildTape";
import { isSameRow, keyOfRow, type TapeModel, type TapeRow } from "../model/tapeRows";
import { tapeLook } from "../tapeLook";

/** The tape of a take under other rules, or undefined while those have faults or the take is too long to judge at once. */
function tapeOfVariant(kit: Kit, take: Take): TapeModel | undefined {
  const program = take.frames <= LONG_TAKE_FRAMES ? compileFresh(kit) : undefined;
  return program && buildTape(kit, program, evaluateOnce(program, take).trace, take);
}

const NONE: readonly TapeRow[] = [];

/** For each row of the tape the same row under the variant that is laid over it; undefined where it is no other. */
export function useGhosts(
  evaluated: Evaluated | undefined,
  model: TapeModel,
): readonly (TapeRow | undefined)[] {
  const variants = useWorkbench(state => state.variants);
  const order = useWorkbench(state => state.rows);
  const over = useStore(tapeLook, look => look.laidOver);
  const laidOver = variants.find(variant => variant.id === over);
  const other = useMemo(
    () => laidOver && evaluated && tapeOfVariant(laidOver.kit, evaluated.take),
    [laidOver, evaluated],
  );
  return useMemo(() => {
    if (!other) return NONE;
    const known = [...other.rows, ...arrangeRows(other, order).rows];
    const rows = new Map(known.map(row => [keyOfRow(row), row]));
    return model.rows.map(row => {
      const ghost = rows.get(keyOfRow(row));
      return ghost && !isSameRow(row, ghost) ? ghost : undefined;
    });
  }, [other, order, model]);
}
