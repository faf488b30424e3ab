import { notes, type Fate, type Trace } from "#core";

/** How many moves a whole take performed, and how many of its presses were lost. */
export interface Outcomes {
  readonly performed: number;
  readonly lost: number;
}

/** Counts what came of the presses of a take: the moves of its trace, and the lost among its fates. */
export function countOutcomes(trace: Trace, fates: readonly Fate[]): Outcomes {
  let performed = 0;
  for (let i = 0; i < trace.count; i++) if (trace.kind[i] === notes.PERFORMED) performed++;
  return { performed, lost: fates.filter(fate => fate.outcome === "lost").length };
}
