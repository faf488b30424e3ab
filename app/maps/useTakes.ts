import { useMemo } from "react";
import type { Program, Trace } from "#core";
import { useDesk, useDocument, useEvaluation } from "../document/context";
import { isLong, type Evaluated } from "../judging/judge";

/** The takes whose presses lie on the maps, as the rules understand them now. Very long takes are left out. */
export interface TakesNow {
  readonly program: Program;
  readonly takes: readonly Evaluated[];
  readonly traces: readonly Trace[];
  readonly leftOut: number;
}

/** Runs every take of the kit that is short enough through the rules; undefined while there are none. */
export function useTakes(): TakesNow | undefined {
  const { judge } = useDesk();
  const rules = useEvaluation(state => state.rules);
  const all = useDocument(state => state.takes);
  return useMemo(() => {
    if (!rules) return undefined;
    const takes = all
      .filter(take => !isLong(take, rules.program.rateHz))
      .map(take => judge.evaluate(rules, take));
    const traces = takes.map(({ trace }) => trace);
    return { program: rules.program, takes, traces, leftOut: all.length - takes.length };
  }, [judge, rules, all]);
}
