import {
  clockOfTrace,
  FAILURES,
  framesBetween,
  isAnswered,
  notes,
  promptOutcome,
  type Program,
  type Trace,
} from "#core";

/** How one showing of a prompt ended. Frames of the prompt's clock since it was shown. */
export interface Answer {
  readonly at: number;
  /** A place in the prompt's grades; −1 for one answered without a grade, or not at all. */
  readonly grade: number;
  /** Why it failed; undefined where it was answered. */
  readonly failed: (typeof FAILURES)[number] | undefined;
  /** The note of its end. */
  readonly note: number;
}

/** Returns how every showing of a prompt ended in a trace, in order; one still showing at the end is left out. */
export function listAnswers(program: Program, trace: Trace, prompt: number): Answer[] {
  const clock = clockOfTrace(trace);
  const { isReal } = program.prompts[prompt]!;
  const found: Answer[] = [];
  let shown = -1;
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.prompt.code || trace.subject[i] !== prompt) continue;
    const outcome = notes.prompt.outcome(trace, i);
    if (outcome === promptOutcome.shown) shown = trace.frame[i]!;
    const isOver = isAnswered(outcome) || outcome === promptOutcome.failed;
    if (!isOver || shown < 0) continue;
    found.push({
      at: framesBetween(clock, isReal, shown, trace.frame[i]!),
      grade: outcome >= promptOutcome.graded ? outcome - promptOutcome.graded : -1,
      failed: isAnswered(outcome) ? undefined : FAILURES[notes.prompt.detail(trace, i)],
      note: i,
    });
    shown = -1;
  }
  return found;
}
