import { firstNoteAfter, LOSS_REASONS, notes, type Trace } from "#core";

/** The kinds of note, from most to least informative about the player. */
const BY_WORTH: readonly number[] = [
  notes.performed.code,
  notes.lost.code,
  notes.prompt.code,
  notes.fired.code,
  notes.lapsed.code,
  notes.mode.code,
  notes.gate.code,
  notes.phased.code,
];

/** Returns whether a note is an event that the tape's keys go to: a press, a release, or what the rules do. */
export const isEvent = (trace: Trace, note: number): boolean =>
  trace.kind[note] === notes.edge.code || BY_WORTH.includes(trace.kind[note]!);

/** Returns whether a loss only means that another move used the press. */
export const isBeaten = (trace: Trace, note: number): boolean =>
  trace.kind[note] === notes.lost.code && LOSS_REASONS[notes.lost.reason(trace, note)] === "beaten";

/** Returns the most informative event of a frame; undefined if the rules do nothing on it. */
export function mostInformativeNote(trace: Trace, frame: number): number | undefined {
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
