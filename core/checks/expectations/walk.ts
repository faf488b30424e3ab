import { firstAbove } from "../../time/rising";
import { firstNoteAfter, type Trace } from "../../trace/trace";
import type { Matcher } from "../matchEvents";
import type { TraceIndex } from "../traceIndex";

/** Returns the index of the first note at or after a frame, in a list of ascending notes. */
function firstFrom(trace: Trace, notes: readonly number[], frame: number): number {
  return firstAbove(notes, firstNoteAfter(trace, frame - 1) - 1);
}

/**
 * Calls back for every matching event of a range of frames, both ends included, in order, until the callback
 * returns true.
 */
export function walk(
  { trace, notesOf }: TraceIndex,
  { kind, subject, isMatch }: Matcher,
  from: number,
  to: number,
  see: (note: number, frame: number) => boolean | void,
): void {
  const notes = notesOf(kind, subject);
  for (let k = firstFrom(trace, notes, from); k < notes.length; k++) {
    const note = notes[k]!;
    const frame = trace.frame[note]!;
    if (frame > to) return;
    if (isMatch(trace, note) && see(note, frame) === true) return;
  }
}
