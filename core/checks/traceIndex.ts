import type { Program } from "../run/program";
import { FIRE, PERFORMED, type Trace } from "../trace/trace";

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

function listAnswers(
  { moves, sourceCount, controls }: Program,
  trace: Trace,
  notesOf: TraceIndex["notesOf"],
): Answer[][] {
  const answers = controls.map((): Answer[] => []);
  const fires = new Map<number, ReadonlyMap<number, number>>();
  moves.forEach(({ pattern }, move) => {
    if (!fires.has(pattern))
      fires.set(pattern, new Map(notesOf(FIRE, pattern).map(note => [trace.frame[note]!, note])));
    for (const note of notesOf(PERFORMED, move)) {
      const fire = fires.get(pattern)!.get(trace.payload[trace.at[note]!]!);
      // A request made anew while held has no fire of its frame.
      if (fire === undefined) continue;
      const at = trace.at[fire]!;
      const count = trace.payload[at]!;
      for (let k = 1; k <= count; k++) {
        const key = trace.payload[at + k]!;
        const edge = Math.floor(key / sourceCount);
        answers[key % sourceCount]?.push({ edge, f: trace.frame[note]!, move });
      }
    }
  });
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
    answersTo: control => (answers ??= listAnswers(program, trace, notesOf))[control] ?? [],
  };
}
