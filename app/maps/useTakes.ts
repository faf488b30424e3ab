import { useMemo } from "react";
import type { Program } from "#core";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument } from "../document/workbenchContext";
import { useJudging } from "../judging/context";
import { isLong, type Evaluated } from "../judging/judge";
import type { TakeRead } from "./windowDots";

/**
 * The takes whose presses are drawn on the maps, evaluated under the current rules, without very long ones.
 */
export interface TakesNow {
  readonly program: Program;
  readonly takes: readonly Evaluated[];
  /** The same takes, with the outcomes of their presses and requests. */
  readonly reads: readonly (TakeRead & { readonly of: Evaluated })[];
  readonly leftOut: number;
}

/** Evaluates every take of the kit that is short enough; undefined while there are none. */
export function useTakes(): TakesNow | undefined {
  const { judge } = useJudging();
  const rules = useEvaluation(state => state.rules);
  const all = useDocument(state => state.takes);
  return useMemo(() => {
    if (!rules) return undefined;
    const takes = all
      .filter(take => !isLong(take, rules.program.rateHz))
      .map(take => judge.evaluate(rules, take));
    const { program } = rules;
    const reads = takes.map(of => ({ of, program, trace: of.trace, outcomes: judge.outcomesOf(of) }));
    return { program, takes, reads, leftOut: all.length - takes.length };
  }, [judge, rules, all]);
}
