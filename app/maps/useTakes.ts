import { useMemo } from "react";
import type { Program, Take, Trace } from "#core";
import { LONG_TAKE_FRAMES } from "../judging/judged";
import { evaluateOnce } from "../document/workbench";
import { useCompiled, useWorkbench } from "../document/useWorkbench";

/** The takes whose presses lie on the maps, with their traces under the rules as they now stand. Very long takes are left out. */
export interface TakesNow {
  readonly program: Program;
  readonly takes: readonly Take[];
  readonly traces: readonly Trace[];
  readonly leftOut: number;
}

/** Runs every take of the kit that is short enough through the rules; undefined while there is no program. */
export function useTakes(): TakesNow | undefined {
  const { program } = useCompiled();
  const all = useWorkbench(state => state.takes);
  return useMemo(() => {
    if (!program) return undefined;
    const takes = all.filter(take => take.frames <= LONG_TAKE_FRAMES);
    const traces = takes.map(take => evaluateOnce(program, take).trace);
    return { program, takes, traces, leftOut: all.length - takes.length };
  }, [program, all]);
}
