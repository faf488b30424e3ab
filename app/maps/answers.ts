import { notes, type Trace } from "#core";

/** How one showing of a prompt ended. Frames since it was shown. */
export interface Answer {
  readonly at: number;
  /** A place in the prompt's grades; −1 for one answered without a grade, or not at all. */
  readonly grade: number;
  /** Why it failed; undefined where it was answered. */
  readonly failed: (typeof notes.FAILURES)[number] | undefined;
  /** The note that tells it. */
  readonly note: number;
}

/** How every showing of a prompt ended in a trace, in order; one still open at the end is left out. */
export function listAnswers(trace: Trace, prompt: number): Answer[] {
  const found: Answer[] = [];
  let shown = -1;
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.PROMPT || trace.subject[i] !== prompt) continue;
    const outcome = trace.payload[trace.at[i]!]!;
    if (outcome === notes.SHOWN) shown = trace.frame[i]!;
    if (outcome === notes.SHOWN || outcome === notes.OPENED || shown < 0) continue;
    const isFailed = outcome === notes.FAILED;
    found.push({
      at: trace.frame[i]! - shown,
      grade: outcome >= notes.GRADED ? outcome - notes.GRADED : -1,
      failed: isFailed ? notes.FAILURES[trace.payload[trace.at[i]! + 1]!] : undefined,
      note: i,
    });
    shown = -1;
  }
  return found;
}
