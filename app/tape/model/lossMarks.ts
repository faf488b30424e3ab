import { createOutcomeReader, LOSS_REASONS, notes, type Fate, type Program, type Trace } from "#core";
import type { TapeRow } from "./tapeRows";

/** A loss on the tape, with the number of its unused presses. */
interface Mark {
  readonly row: TapeRow;
  readonly at: number;
  unused: number;
}

/** Chooses the look of losses on the tape, note by note as a trace grows. */
export interface LossMarks {
  /** Reads up to and including the note. May change marks already on rows. */
  readonly readNote: (note: number) => void;
  /** Returns the look of the mark to add to a row for a loss, which must be the note read last. */
  readonly lookOf: (note: number, row: TapeRow) => "lost" | "beaten";
}

/**
 * Distinguishes lost presses from losses whose presses a move or a prompt used before or after; those are
 * marked as beaten. Uses the outcomes of the trace.
 */
export function followLosses(program: Program, trace: Trace): LossMarks {
  const marksOf = new Map<Fate, Mark[]>();
  let lastLost: readonly Fate[] = [];
  const reader = createOutcomeReader(program, trace, {
    onUsed(press) {
      for (const mark of marksOf.get(press) ?? [])
        if (--mark.unused === 0) mark.row.markLook[mark.at] = "beaten";
      marksOf.delete(press);
    },
    onLost: presses => (lastLost = presses),
  });
  return {
    readNote: note => reader.readTo(note + 1),
    lookOf(note, row) {
      if (lastLost.length === 0)
        return LOSS_REASONS[notes.lost.reason(trace, note)] === "beaten" ? "beaten" : "lost";
      const unused = lastLost.filter(({ outcome }) => outcome !== "used");
      if (unused.length === 0) return "beaten";
      const mark: Mark = { row, at: row.markFrame.length, unused: unused.length };
      for (const press of unused) marksOf.set(press, [...(marksOf.get(press) ?? []), mark]);
      return "lost";
    },
  };
}
