import { FIRE, type Trace } from "../trace/trace";

/** The notes of a trace by what they are about, so that many checks need not each go through all of it. */
export interface TraceIndex {
  readonly trace: Trace;
  /** The places of all notes of a kind on a subject, in their order. */
  readonly notesOf: (kind: number, subject: number) => readonly number[];
  /** The note of a pattern's fire on a frame, or undefined. */
  readonly fireOn: (pattern: number, frame: number) => number | undefined;
}

const NONE: readonly number[] = [];
/** More subjects than a kit may have. */
const SUBJECTS = 65_536;

/** Makes the index of a whole trace: one pass over its notes; fires are laid out by frame when they are first asked for. */
export function indexTrace(trace: Trace): TraceIndex {
  const notes = new Map<number, number[]>();
  for (let i = 0; i < trace.count; i++) {
    const key = trace.kind[i]! * SUBJECTS + trace.subject[i]!;
    const known = notes.get(key);
    if (known) known.push(i);
    else notes.set(key, [i]);
  }
  const notesOf = (kind: number, subject: number) => notes.get(kind * SUBJECTS + subject) ?? NONE;
  const fires = new Map<number, ReadonlyMap<number, number>>();
  return {
    trace,
    notesOf,
    fireOn(pattern, frame) {
      let own = fires.get(pattern);
      if (!own) {
        own = new Map(notesOf(FIRE, pattern).map(note => [trace.frame[note]!, note]));
        fires.set(pattern, own);
      }
      return own.get(frame);
    },
  };
}
