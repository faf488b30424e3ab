import { fault, type Issue, type Result } from "../formats/issue";
import type { Program } from "../program/program";
import { landLeeway, landTime } from "./checkTimes";
import type { Check } from "./checksSchema";
import type { CompileTools, Judge, VerdictOf } from "./expectations/expectation";
import { expectationOf, expectationRecord, type WhyNot } from "./expectations/kinds";
import type { Trace } from "../trace/trace";
import { compileMatcher, unknownId } from "./matchEvents";
import { compileIdle } from "./vacuity";

/** The result of judging a check on one take. Frames are those of the judged rate. */
export type Verdict = VerdictOf<WhyNot>;

/** A compiled check; judges traces of one program. */
export type CheckJudge = Judge<WhyNot>;

/**
 * Compiles a check against a program, the kit compiled at the rate to judge at. `kitRateHz` is the kit's own
 * rate; times in the check are written in its frames. Returns one issue for every id the kit lacks, with its
 * path inside the check. Verdicts follow docs/check-rules.md exactly; the indexed trace must be complete.
 * Example:
 *
 *     const judge = compileCheck(program, kit.rate, check);
 *     if (judge.ok) judge.value(indexTrace(program, evaluate(program, take))).ok;
 */
export function compileCheck(program: Program, kitRateHz: number, check: Check): Result<CheckJudge> {
  const issues: Issue[] = [];
  const land = (written: string) => landTime(written, kitRateHz, program.rateHz);
  const from = check.from === undefined ? 0 : land(check.from);
  const until = check.to === undefined ? Infinity : land(check.to);
  if (until < from) issues.push(fault("stretch-order", ["to"], { from: check.from ?? "0f", to: check.to! }));
  const stretch = (trace: Trace) => ({ from, to: Math.min(until, trace.frames - 1) });
  const tools: CompileTools = {
    program,
    kitRateHz,
    stretch,
    idle(event) {
      const isIdle = compileIdle(program, event);
      return index => {
        const range = stretch(index.trace);
        return isIdle(index, range.from, range.to);
      };
    },
    land,
    leeway: (written, otherwise) =>
      written === undefined ? otherwise : landLeeway(written, kitRateHz, program.rateHz),
    match(event, path) {
      const compiled = compileMatcher(program, event, path);
      if ("matcher" in compiled) return compiled.matcher;
      issues.push(compiled.issue);
      return { kind: -1, subject: -1, isMatch: () => false };
    },
    indexOf(list, id, path) {
      const index = program[list].findIndex(item => item.id === id);
      if (index < 0) issues.push(unknownId(program, list, id, path));
      return index;
    },
  };
  const judge = expectationRecord(expectationOf(check)).compile(check, tools) as CheckJudge;
  if (issues.length > 0) return { ok: false, issues };
  const judgeStretch: CheckJudge = index => {
    const verdict = judge(index);
    const range = stretch(index.trace);
    return verdict.ok && range.from > range.to ? { ...verdict, vacuous: true } : verdict;
  };
  return { ok: true, value: judgeStretch, warnings: [] };
}
