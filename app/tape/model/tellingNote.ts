import { firstNoteAfter, notes, type Trace } from "#core";

/** Kinds of note from the one that says most of what a player did to the one that says least. */
const BY_WORTH: readonly number[] = [
  notes.PERFORMED,
  notes.LOST,
  notes.PROMPT,
  notes.FIRE,
  notes.LAPSE,
  notes.MODE,
  notes.GATE,
];

/** Does a loss say only that another move used the press? */
export const isBeaten = (trace: Trace, note: number): boolean =>
  trace.kind[note] === notes.LOST && trace.payload[trace.at[note]! + 1] === notes.BEATEN;

/** The event of a frame that says most; undefined where nothing happens on it. */
export function tellingNote(trace: Trace, frame: number): number | undefined {
  let best: number | undefined;
  let rank = BY_WORTH.length;
  for (let i = firstNoteAfter(trace, frame - 1); i < trace.count && trace.frame[i] === frame; i++) {
    const worth = BY_WORTH.indexOf(trace.kind[i]!);
    if (worth < 0 || worth >= rank || isBeaten(trace, i)) continue;
    best = i;
    rank = worth;
  }
  return best;
}
