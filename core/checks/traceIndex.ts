import { keyFrame, keySource, type Program } from "../program/program";
import { readOutcomes } from "../study/outcomes/readOutcomes";
import { edgesOf } from "../trace/notes/edgeList";
import type { Trace } from "../trace/trace";

/**
 * A performed move that answers a press edge: the frame of the edge, the frame of the answer, and the index
 * of the move.
 */
export interface Answer {
  readonly edge: number;
  readonly f: number;
  readonly move: number;
}

/** An index of a trace's notes by kind and subject, shared by many checks. */
export interface TraceIndex {
  readonly trace: Trace;
  /** Returns the indices of all notes of a kind on a subject, in order. */
  readonly notesOf: (kind: number, subject: number) => readonly number[];
  /** Returns every answer to a press edge of a control: a performed move whose fire holds the edge. */
  readonly answersTo: (control: number) => readonly Answer[];
}

const NONE: readonly number[] = [];
/** An upper bound on the number of subjects of a kit. */
const SUBJECTS = 65_536;

function listAnswers(program: Program, trace: Trace): Answer[][] {
  const answers = program.controls.map((): Answer[] => []);
  for (const { move, end, frame, note, isAgain } of readOutcomes(program, trace).requests) {
    if (end !== "performed" || isAgain) continue;
    for (const key of edgesOf(trace, note))
      answers[keySource(program, key)]?.push({ edge: keyFrame(program, key), f: frame, move });
  }
  return answers;
}

/** Indexes a complete trace of a program in one pass over its notes. Answers are computed on first use. */
export function indexTrace(program: Program, trace: Trace): TraceIndex {
  const notes = new Map<number, number[]>();
  for (let i = 0; i < trace.count; i++) {
    const key = trace.kind[i]! * SUBJECTS + trace.subject[i]!;
    const known = notes.get(key);
    if (known) known.push(i);
    else notes.set(key, [i]);
  }
  const notesOf = (kind: number, subject: number) => notes.get(kind * SUBJECTS + subject) ?? NONE;
  let answers: Answer[][] | undefined;
  return {
    trace,
    notesOf,
    answersTo: control => (answers ??= listAnswers(program, trace))[control] ?? [],
  };
}
