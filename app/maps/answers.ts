import { mean, sampleStandardDeviation } from "simple-statistics";
import {
  clockOfTrace,
  FAILURES,
  formatMs,
  framesBetween,
  isAnswered,
  notes,
  promptOutcome,
  type Program,
  type Trace,
} from "#core";

/** The end of one showing of a prompt. Frames of the prompt's clock since it was shown. */
export interface Answer {
  readonly at: number;
  /** An index into the prompt's grades; −1 if answered without a grade, or not at all. */
  readonly grade: number;
  /** The reason of its failure; undefined if it was answered. */
  readonly failed: (typeof FAILURES)[number] | undefined;
  /** The note of its end. */
  readonly note: number;
}

/** Returns the end of every showing of a prompt in a trace, in order; omits one still showing at the end. */
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

/**
 * Formats how far from the best moment answers came: "0.6f (9.8 ms) late on average, give or take 3.5f (59.1 ms)", the standard
 * deviation. `offsets` are in frames, negative before the best; empty for fewer than two.
 */
export function formatOffsets(offsets: readonly number[], rateHz: number): string {
  if (offsets.length < 2) return "";
  const both = (frames: number) => `${Math.round(frames * 10) / 10}f (${formatMs(frames, rateHz)})`;
  const bias = mean([...offsets]);
  const side =
    Math.round(bias * 10) === 0
      ? "at the best moment"
      : `${both(Math.abs(bias))} ${bias < 0 ? "early" : "late"}`;
  return `${side} on average, give or take ${both(sampleStandardDeviation([...offsets]))}`;
}
