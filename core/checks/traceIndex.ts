import { keyFrame, keySource, type Program } from "../run/program";
import { readOutcomes } from "../study/outcomes/readOutcomes";
import { edgesOf } from "../trace/notes/edgeList";
import type { Trace } from "../trace/trace";

/** A press edge that a performed move answers: its frame, the frame of the answer, and the move by its place. */
export interface Answer {
  readonly edge: number;
  readonly f: number;
  readonly move: number;
}

/** The notes of a trace by what they are about, so that many checks need not each go through all of it. */
export interface TraceIndex {
  readonly trace: Trace;
  /** The places of all notes of a kind on a subject, in their order. */
  readonly notesOf: (kind: number, subject: number) => readonly number[];
  /** Every answer to a press edge of a control: a move performed off a fire that has the edge among its own. */
  readonly answersTo: (control: number) => readonly Answer[];
}

const NONE: readonly number[] = [];
/** More subjects than a kit may have. */
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

/** Makes the index of a whole trace of a program: one pass over its notes; answers are listed when they are first asked for. */
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
