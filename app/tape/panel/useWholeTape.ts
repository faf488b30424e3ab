import { useEffect, useMemo, useState } from "react";
import { usePad } from "../../input/context";
import { NOTES_A_REST, type Evaluated } from "../../judging/judge";
import { beginTape, buildTape } from "../model/buildTape";
import { EMPTY_TAPE, type TapeModel } from "../model/tapeRows";

/** An evaluated take and its own tape. */
interface WholeTape {
  readonly evaluated: Evaluated | undefined;
  readonly whole: TapeModel;
}

const NOTHING: WholeTape = { evaluated: undefined, whole: EMPTY_TAPE };

/** Up to this number of notes a tape is built synchronously. */
const AT_ONCE_NOTES = 4 * NOTES_A_REST;

/**
 * Returns the tape of an evaluated take. A long one is built in slices, so that the page stays responsive;
 * until it is complete, the last tape of the same take is returned with its evaluation.
 */
export function useWholeTape(evaluated: Evaluated | undefined): WholeTape {
  const { seen } = usePad();
  const isLong = evaluated !== undefined && evaluated.trace.count > AT_ONCE_NOTES;
  const [last, setLast] = useState(NOTHING);
  useEffect(() => {
    if (!isLong) return;
    const { rules, trace, take, track } = evaluated;
    const reading = beginTape(rules, trace, take, track);
    let note = 0;
    let timer = setTimeout(function goOn() {
      note = Math.min(trace.count, note + NOTES_A_REST);
      reading.readTo(note);
      if (note === trace.count) setLast({ evaluated, whole: reading.finish() });
      else timer = setTimeout(goOn);
    });
    return () => clearTimeout(timer);
  }, [isLong, evaluated]);
  const built = useMemo(() => {
    if (!evaluated) return NOTHING;
    if (!isLong) {
      const { rules, trace, take, track } = evaluated;
      return { evaluated, whole: buildTape(rules, trace, take, track) };
    }
    const isSame =
      last.evaluated?.take.id === evaluated.take.id && last.evaluated.rules.kit.id === evaluated.rules.kit.id;
    return isSame ? last : NOTHING;
  }, [evaluated, isLong, last]);
  return useMemo(() => {
    const own = built.evaluated;
    const otherwiseFrom = own && seen.differsFrom(own.take.id, own.rules, own.track);
    return otherwiseFrom === undefined ? built : { ...built, whole: { ...built.whole, otherwiseFrom } };
  }, [built, seen]);
}
