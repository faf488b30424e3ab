import { notes, type Program, type Trace } from "#core";
import { fatesOf } from "./pressOf";

/** How many moves a whole take performed, and how many of its presses were lost. */
export interface Outcomes {
  readonly performed: number;
  readonly lost: number;
}

const counted = new WeakMap<Trace, Outcomes>();

/** Counts what came of the presses of a trace that is no longer growing; once for each. */
export function countOutcomes(program: Program, trace: Trace): Outcomes {
  const known = counted.get(trace);
  if (known) return known;
  let performed = 0;
  for (let i = 0; i < trace.count; i++) if (trace.kind[i] === notes.PERFORMED) performed++;
  const lost = fatesOf(program, trace).filter(fate => fate.outcome === "lost").length;
  const found = { performed, lost };
  counted.set(trace, found);
  return found;
}
