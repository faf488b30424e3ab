import {
  compileCheck,
  indexTrace,
  appliesTo,
  ratesOf,
  readTake,
  type Check,
  type CheckJudge,
  type Issue,
  type Kit,
  type PrepareRun,
  type Result,
  type Take,
  type Verdict,
} from "#core";
import { compileRules, type Rules } from "./rules";
import { runRules } from "./staging";

/** The verdict of one check, by its index, on a take at one rate. */
export interface TakeVerdict extends Verdict {
  readonly check: number;
  readonly rate: number;
}

/** The checks compiled for one rate. */
interface AtRate {
  readonly rateHz: number;
  readonly rules: Rules;
  readonly judges: readonly { readonly check: number; readonly judge: CheckJudge }[];
}

/** Judges takes, each run once at every rate that a check asks for. */
export type TakeJudge = (take: Take) => TakeVerdict[];

/**
 * Compiles checks for a kit on its stage, at the rates they are judged at: their own or the kit's, and `more`
 * (in Hz). At another rate the kit's lengths are converted to it. Returns every fault: of the kit at a rate,
 * and of ids the kit lacks, with paths into the list of checks.
 */
export function compileTakeJudge(
  kit: Kit,
  checks: readonly Check[],
  more: readonly number[] = [],
): Result<TakeJudge> {
  const asked = checks.map((check, c) => ({ check, c })).filter(({ check }) => !check.off);
  const rates = [...new Set(asked.flatMap(({ check }) => ratesOf(check, kit.rate, more)))];
  const issues: Issue[] = [];
  const ready = rates.flatMap((rateHz): AtRate[] => {
    const rules = compileRules(rateHz === kit.rate ? kit : { ...kit, rate: rateHz });
    if (!rules.ok) {
      issues.push(...rules.issues);
      return [];
    }
    const judges = asked.flatMap(({ check, c }) => {
      if (!ratesOf(check, kit.rate, more).includes(rateHz)) return [];
      const judge = compileCheck(rules.value.program, kit.rate, check);
      if (judge.ok) return [{ check: c, judge: judge.value }];
      // A missing id is missing at every rate, so it is reported once.
      if (rateHz === ratesOf(check, kit.rate, more)[0])
        issues.push(...judge.issues.map(issue => ({ ...issue, path: ["checks", c, ...issue.path] })));
      return [];
    });
    return [{ rateHz, rules: rules.value, judges }];
  });
  if (issues.length > 0) return { ok: false, issues };
  const judgeTake: TakeJudge = take =>
    ready.flatMap(({ rateHz, rules, judges }) => {
      const own = judges.filter(({ check }) => appliesTo(checks[check]!, take.id));
      if (own.length === 0) return [];
      const { trace } = runRules(rules, readTake(rules.program, take));
      const index = indexTrace(rules.program, trace);
      return own.map(({ check, judge }) => ({ check, rate: rateHz, ...judge(index) }));
    });
  return { ok: true, value: judgeTake, warnings: [] };
}

/**
 * Creates the function that prepares kits on their stage for studies and judges every run by the checks of
 * the kit's own rate. A check that names an id the changed kit lacks is omitted.
 */
export function prepareStudied(checks: readonly Check[] = []): PrepareRun {
  return kit => {
    const rules = compileRules(kit);
    if (!rules.ok) return undefined;
    const { program } = rules.value;
    const judges = checks.flatMap((check, c) => {
      if (check.off || !ratesOf(check, kit.rate).includes(kit.rate)) return [];
      const ready = compileCheck(program, kit.rate, check);
      return ready.ok ? [{ check: c, judge: ready.value }] : [];
    });
    return {
      program,
      run: (columns, waits) => runRules(rules.value, columns, waits).trace,
      judge(trace, takeId) {
        const own = judges.filter(({ check }) => appliesTo(checks[check]!, takeId));
        if (own.length === 0) return [];
        const index = indexTrace(program, trace);
        return own.map(({ check, judge }) => ({ check, ok: judge(index).ok }));
      },
    };
  };
}
