import { useMemo } from "react";
import { useDocument } from "../../document/workbenchContext";
import { useJudging } from "../../judging/context";
import type { Evaluated } from "../../judging/judge";
import { isLong } from "../../judging/longTake";
import { useTapeLook } from "../hand/context";
import { arrangeRows } from "../model/arrangeRows";
import { buildTape } from "../model/buildTape";
import { isSameRow, keyOfRow, type TapeModel, type TapeRow } from "../model/tapeRows";

const NONE: readonly TapeRow[] = [];

/**
 * Returns, for each row of the tape, the same row under the variant shown for comparison; undefined if it is
 * equal. None while that variant has faults or the take is too long to be evaluated synchronously.
 */
export function useGhosts(
  evaluated: Evaluated | undefined,
  model: TapeModel,
): readonly (TapeRow | undefined)[] {
  const { judge } = useJudging();
  const order = useDocument(state => state.settings);
  const over = useTapeLook(look => look.laidOver);
  const laidOver = useDocument(state => state.variants.find(variant => variant.id === over));
  const take = evaluated?.take;
  const other = useMemo(() => {
    const rules =
      laidOver && take && !isLong(take, laidOver.kit.rate) ? judge.rulesOf(laidOver.kit) : undefined;
    if (!rules || !take) return undefined;
    const { trace, track } = judge.evaluate(rules, take);
    return buildTape(rules, trace, take, track);
  }, [judge, laidOver, take]);
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
