import type { Issue, PathStep, Result } from "../formats/issue";
import type { Program } from "../run/program";
import { EDGE, FIRE, firstNoteAfter, PERFORMED, type Trace } from "../trace/trace";
import { landLeeway, landTime } from "./checkTimes";
import { type AskedEvent, type Check, type KeptEvent } from "./checksSchema";
import { compileMatcher, unknownId, type Matcher } from "./matchEvents";
import { listStory } from "./story";

/** Why a check does not hold. */
export type WhyNot =
  | "never"
  | "early"
  | "late"
  | "happened"
  | "too-few"
  | "too-many"
  | "broken"
  | "unanswered"
  | "differs"
  | "no-take";

/** What a check finds in one take. Frames are those of the judged rate. */
export interface Verdict {
  readonly ok: boolean;
  readonly why?: WhyNot;
  readonly f?: number;
  readonly slip?: number;
  readonly count?: number;
  readonly reached?: number;
}

/** A check made ready to judge traces of one program. */
export type CheckJudge = (trace: Trace) => Verdict;

/** A stretch of frames, both ends included. */
type StretchOf = (trace: Trace) => { readonly from: number; readonly to: number };

/** Calls back for every note of a stretch, in order, until it is told to stop. */
function walk(trace: Trace, from: number, to: number, see: (note: number) => boolean | void): void {
  for (let i = from === 0 ? 0 : firstNoteAfter(trace, from - 1); i < trace.count; i++) {
    if (trace.frame[i]! > to || see(i) === true) return;
  }
}

function judgeHappens(matcher: Matcher, stretch: StretchOf, at: number, within: number): CheckJudge {
  return trace => {
    const { from, to } = stretch(trace);
    let nearest = -1;
    walk(trace, from, to, i => {
      if (!matcher(trace, i)) return;
      const f = trace.frame[i]!;
      if (nearest < 0 || Math.abs(f - at) < Math.abs(nearest - at)) nearest = f;
      return f > at;
    });
    if (nearest < 0) return { ok: false, why: "never" };
    const slip = nearest - at;
    if (Math.abs(slip) <= within) return { ok: true, f: nearest, slip };
    return { ok: false, why: slip < 0 ? "early" : "late", f: nearest, slip };
  };
}

function judgeNever(matcher: Matcher, stretch: StretchOf): CheckJudge {
  return trace => {
    const { from, to } = stretch(trace);
    let found = -1;
    walk(trace, from, to, i => {
      if (!matcher(trace, i)) return false;
      found = trace.frame[i]!;
      return true;
    });
    return found < 0 ? { ok: true } : { ok: false, why: "happened", f: found };
  };
}

function judgeCounts(matcher: Matcher, stretch: StretchOf, min: number, max: number): CheckJudge {
  return trace => {
    const { from, to } = stretch(trace);
    let count = 0;
    walk(trace, from, to, i => {
      if (matcher(trace, i)) count++;
    });
    if (count < min) return { ok: false, why: "too-few", count };
    if (count > max) return { ok: false, why: "too-many", count };
    return { ok: true, count };
  };
}

function judgeOrder(matchers: readonly Matcher[], stretch: StretchOf): CheckJudge {
  return trace => {
    const { from, to } = stretch(trace);
    const used = new Set<number>();
    let last = from;
    for (const matcher of matchers) {
      let found = -1;
      walk(trace, last, to, i => {
        if (used.has(i) || !matcher(trace, i)) return false;
        found = i;
        return true;
      });
      if (found < 0) return { ok: false, why: "broken", reached: used.size };
      used.add(found);
      last = trace.frame[found]!;
    }
    return { ok: true };
  };
}

/** `move`: the only one that answers, or −1 for any. `within`: Infinity for however late. */
function judgeAnswers(
  program: Program,
  control: number,
  move: number,
  within: number,
  stretch: StretchOf,
): CheckJudge {
  const { sourceCount, patterns } = program;
  return trace => {
    const { from, to } = stretch(trace);
    /** Fires by frame and pattern; a request made anew while held has none of its frame. */
    const fires = new Map<number, number>();
    const answered = new Set<number>();
    for (let i = 0; i < trace.count; i++) {
      const subject = trace.subject[i]!;
      const f = trace.frame[i]!;
      if (trace.kind[i] === FIRE) fires.set(f * patterns.length + subject, i);
      if (trace.kind[i] !== PERFORMED || (move >= 0 && subject !== move)) continue;
      const made = trace.payload[trace.at[i]!]!;
      const fire = fires.get(made * patterns.length + program.moves[subject]!.pattern);
      if (fire === undefined) continue;
      const at = trace.at[fire]!;
      for (let k = 1; k <= trace.payload[at]!; k++) {
        const key = trace.payload[at + k]!;
        const edgeFrame = Math.floor(key / sourceCount);
        if (key % sourceCount === control && f - edgeFrame <= within) answered.add(edgeFrame);
      }
    }
    let count = 0;
    let first = -1;
    walk(trace, from, to, i => {
      if (trace.kind[i] !== EDGE || trace.subject[i] !== control) return;
      if (trace.payload[trace.at[i]!] !== 1 || answered.has(trace.frame[i]!)) return;
      if (count === 0) first = trace.frame[i]!;
      count++;
    });
    return count === 0 ? { ok: true, count } : { ok: false, why: "unanswered", f: first, count };
  };
}

function judgeSame(
  program: Program,
  kept: readonly KeptEvent[],
  kitRateHz: number,
  slip: number,
  stretch: StretchOf,
): CheckJudge {
  const frames = kept.map(([f]) => landTime(`${f}f`, kitRateHz, program.rateHz));
  return trace => {
    const { from, to } = stretch(trace);
    const story = listStory(program, trace).filter(([f]) => f >= from && f <= to);
    let reached = 0;
    while (reached < kept.length && reached < story.length) {
      const [, kind, id, outcome] = kept[reached]!;
      const now = story[reached]!;
      const isAlike = now[1] === kind && now[2] === id && now[3] === outcome;
      if (!isAlike || Math.abs(now[0] - frames[reached]!) > slip) break;
      reached++;
    }
    if (reached === kept.length && reached === story.length) return { ok: true };
    return { ok: false, why: "differs", f: story[reached]?.[0] ?? frames[reached]!, reached };
  };
}

/**
 * Makes a check ready for a program: the kit compiled at the rate it is to be judged at. `kitRateHz` is the kit's own, in
 * whose frames the check is written. Gives one issue for every id that the kit lacks, with its path inside the check.
 * What is found is exactly what the check rules say; a trace must be whole.
 */
export function compileCheck(program: Program, kitRateHz: number, check: Check): Result<CheckJudge> {
  const land = (written: string) => landTime(written, kitRateHz, program.rateHz);
  const leeway = (written: string) => landLeeway(written, kitRateHz, program.rateHz);
  const from = check.from === undefined ? 0 : land(check.from);
  const until = check.to === undefined ? Infinity : land(check.to);
  const stretch: StretchOf = trace => ({ from, to: Math.min(until, trace.frames - 1) });
  const issues: Issue[] = [];
  const match = (event: AskedEvent, path: readonly PathStep[]): Matcher => {
    const compiled = compileMatcher(program, event, path);
    if ("matcher" in compiled) return compiled.matcher;
    issues.push(compiled.issue);
    return () => false;
  };
  const placeOf = (list: "controls" | "moves", what: string, id: string, field: string): number => {
    const place = program[list].findIndex(item => item.id === id);
    if (place < 0) issues.push(unknownId(program, list, what, id, [field]));
    return place;
  };
  const judge = ((): CheckJudge => {
    if ("happens" in check)
      return judgeHappens(
        match(check.happens, ["happens"]),
        stretch,
        land(check.at),
        leeway(check.within ?? "0f"),
      );
    if ("never" in check) return judgeNever(match(check.never, ["never"]), stretch);
    if ("counts" in check)
      return judgeCounts(match(check.counts, ["counts"]), stretch, check.min ?? 0, check.max ?? Infinity);
    if ("order" in check)
      return judgeOrder(
        check.order.map((event, k) => match(event, ["order", k])),
        stretch,
      );
    if ("answers" in check) {
      const control = placeOf("controls", "control", check.answers, "answers");
      const move = check.move === undefined ? -1 : placeOf("moves", "move", check.move, "move");
      const within = check.within === undefined ? Infinity : leeway(check.within);
      return judgeAnswers(program, control, move, within, stretch);
    }
    return judgeSame(program, check.same, kitRateHz, leeway(check.slip ?? "0f"), stretch);
  })();
  return issues.length > 0 ? { ok: false, issues } : { ok: true, value: judge, warnings: [] };
}
