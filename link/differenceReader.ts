import { landingFrame, notes, type Program, type Take, type Trace } from "#core";
import { createComparison, type PairedAct } from "./differences";
import { actsOf, listReported, type Act } from "./linkedTake";

/** Compares the acts of a game with a trace, both of which may still grow. */
export interface DifferenceReader {
  /** Reads what is new. Returns the pairs that nothing later can change, each once; all of them at the `isEnd`. */
  readonly extend: (trace: Trace, acts: readonly Act[], isEnd?: boolean) => PairedAct[];
}

/** Creates a reader. `acts` will be in frames of the game, at `rateHz`. `reported`: the moves that are compared; all without it. */
export function createDifferenceReader(
  program: Program,
  rateHz: number,
  reported?: ReadonlySet<string>,
): DifferenceReader {
  const comparison = createComparison(program.rateHz);
  let note = 0;
  let act = 0;
  return {
    extend(trace, acts, isEnd = false) {
      for (; act < acts.length; act++) {
        const { id, f } = acts[act]!;
        comparison.addAct(id, landingFrame(f, program.rateHz, rateHz));
      }
      for (; note < trace.count; note++) {
        if (trace.kind[note] !== notes.performed.code) continue;
        const { id } = program.moves[trace.subject[note]!]!;
        if (!reported || reported.has(id)) comparison.addRules(id, trace.frame[note]!);
      }
      return comparison.settle(isEnd ? Infinity : trace.frames - 1);
    },
  };
}

/**
 * Compares what a game performed in a take with the trace of that take. Empty if the game reported nothing; otherwise
 * every act of the game, and those of the rules of the moves that it reports, in the order of their frames.
 */
export function compareTake(program: Program, trace: Trace, take: Take): PairedAct[] {
  if (take.did === undefined) return [];
  return createDifferenceReader(program, take.rate, listReported(take)).extend(trace, actsOf(take), true);
}
