import { useEffect, useMemo, useState } from "react";
import type { Program, Take } from "#core";
import { useEvaluation } from "../document/evaluationContext";
import { useDocument } from "../document/workbenchContext";
import { useJudging } from "../judging/context";
import type { Evaluated, Judge } from "../judging/judge";
import { isLong } from "../judging/longTake";
import type { Rules } from "#stage";
import type { TakeRead } from "./windowDots";

/** The time for evaluating takes within one render, and within one slice after it, in ms. */
const AT_ONCE_MS = 30;
const SLICE_MS = 12;
/** The time between two renders while takes are evaluated, in ms. */
const SHOW_EVERY_MS = 250;

/**
 * The takes whose presses are drawn on the maps, evaluated under the current rules, without very long ones and
 * those that are still to be evaluated.
 */
export interface TakesNow {
  readonly program: Program;
  readonly takes: readonly Evaluated[];
  /** The same takes, with the outcomes of their presses and requests. */
  readonly reads: readonly (TakeRead & { readonly of: Evaluated })[];
  /** The number of takes that are still to be evaluated. */
  readonly pending: number;
}

/** Evaluates takes in their order until a time has passed; at least one that was not evaluated before. */
function evaluateWithin(judge: Judge, rules: Rules, takes: readonly Take[], limitMs: number): Evaluated[] {
  const untilMs = performance.now() + limitMs;
  const evaluated: Evaluated[] = [];
  for (const take of takes) {
    const known = judge.known(rules, take);
    if (!known && evaluated.length > 0 && performance.now() > untilMs) continue;
    const made = known ?? judge.evaluate(rules, take);
    judge.outcomesOf(made);
    evaluated.push(made);
  }
  return evaluated;
}

/**
 * Evaluates the takes of the kit that are short enough: as many as fit into a render, the others in slices
 * between the events of the page, until all are there. Undefined while there are no rules.
 */
export function useTakes(): TakesNow | undefined {
  const { judge, yieldToUi } = useJudging();
  const rules = useEvaluation(state => state.rules);
  const all = useDocument(state => state.takes);
  const [slices, setSlices] = useState(0);
  const now = useMemo(() => {
    if (!rules) return undefined;
    const short = all.filter(take => !isLong(take, rules.program.rateHz));
    const takes = evaluateWithin(judge, rules, short, slices === 0 ? AT_ONCE_MS : SLICE_MS);
    const { program } = rules;
    const reads = takes.map(of => ({ of, program, trace: of.trace, outcomes: judge.outcomesOf(of) }));
    return { short, program, takes, reads, pending: short.length - takes.length };
  }, [judge, rules, all, slices]);
  useEffect(() => {
    if (!rules || !now || now.pending === 0) return;
    let isStopped = false;
    const evaluateRest = async () => {
      const showAtMs = performance.now() + SHOW_EVERY_MS;
      let left = now.pending;
      while (left > 0 && performance.now() < showAtMs) {
        await yieldToUi();
        if (isStopped) return;
        left = now.short.length - evaluateWithin(judge, rules, now.short, SLICE_MS).length;
      }
      setSlices(count => count + 1);
    };
    void evaluateRest();
    return () => void (isStopped = true);
  }, [judge, yieldToUi, rules, now]);
  return now;
}
