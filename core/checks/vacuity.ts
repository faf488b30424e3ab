import type { Program } from "../program/program";
import { notes } from "../trace/noteKinds";
import { firstNoteAfter } from "../trace/trace";
import type { AskedEvent } from "./askedEvent";
import type { TraceIndex } from "./traceIndex";
import { isAnswered, promptOutcome } from "../trace/notes/prompt";

/** Returns whether nothing in a range of frames, both ends included, could have made an event happen. */
export type IsIdle = (index: TraceIndex, from: number, to: number) => boolean;

/** Returns whether a list of ascending notes has one in a range of frames that satisfies a condition. */
function hasAny(
  { trace }: TraceIndex,
  list: readonly number[],
  from: number,
  to: number,
  isIt: (note: number) => boolean = () => true,
): boolean {
  const first = firstNoteAfter(trace, from - 1);
  const end = firstNoteAfter(trace, to);
  return list.some(note => note >= first && note < end && isIt(note));
}

/** Returns whether a prompt is showing on any frame of a range, the frame of its outcome included. */
function isShowing({ trace, notesOf }: TraceIndex, prompt: number, from: number, to: number): boolean {
  let shownAt = -1;
  for (const note of notesOf(notes.prompt.code, prompt)) {
    const outcome = notes.prompt.outcome(trace, note);
    const frame = trace.frame[note]!;
    if (outcome === promptOutcome.shown) shownAt = frame;
    if (!isAnswered(outcome) && outcome !== promptOutcome.failed) continue;
    if (shownAt >= 0 && shownAt <= to && frame >= from) return true;
    shownAt = -1;
  }
  return shownAt >= 0 && shownAt <= to;
}

/**
 * Returns the test of whether an event could not have happened, by its subject. Source: check rules, "Results". Events of
 * gates and modes can always happen.
 */
export function compileIdle(program: Program, { kind, id }: AskedEvent): IsIdle {
  if (kind === "performed" || kind === "lost" || kind === "phase") {
    const move = program.moves.findIndex(item => item.id === id);
    const pattern = program.moves[move]?.pattern ?? -1;
    return (index, from, to) =>
      !hasAny(index, index.notesOf(notes.fired.code, pattern), from, to) &&
      !hasAny(index, index.notesOf(notes.performed.code, move), from, to) &&
      !hasAny(index, index.notesOf(notes.lost.code, move), from, to);
  }
  if (kind === "fired" || kind === "lapsed") {
    const pattern = program.patterns.findIndex(item => item.id === id);
    const controls = program.patterns[pattern]?.controls ?? [];
    return (index, from, to) =>
      !hasAny(index, index.notesOf(notes.fired.code, pattern), from, to) &&
      !hasAny(index, index.notesOf(notes.lapsed.code, pattern), from, to) &&
      !controls.some(control =>
        hasAny(
          index,
          index.notesOf(notes.edge.code, control),
          from,
          to,
          note => notes.edge.isDown(index.trace, note) === 1,
        ),
      );
  }
  if (kind === "prompt") {
    const prompt = program.prompts.findIndex(item => item.id === id);
    return (index, from, to) => !isShowing(index, prompt, from, to);
  }
  return () => false;
}
