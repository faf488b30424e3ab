import type { Issue, PathStep, Result } from "../formats/issue";
import type { Program } from "../run/program";
import { notes } from "../trace/noteKinds";
import type { Trace } from "../trace/trace";
import { landLeeway, landTime } from "./checkTimes";
import { type AskedEvent, type Check, type KeptEvent } from "./checksSchema";
import { compileMatcher, unknownId, type Matcher } from "./matchEvents";
import { listStory } from "./story";
import type { TraceIndex } from "./traceIndex";

/** The reason why a check fails. */
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

/** The result of judging a check on one take. Frames are those of the judged rate. */
export interface Verdict {
  readonly ok: boolean;
  readonly why?: WhyNot;
  readonly f?: number;
  readonly slip?: number;
  readonly count?: number;
  readonly reached?: number;
}

/** A compiled check; judges traces of one program. */
export type CheckJudge = (index: TraceIndex) => Verdict;

/** Returns a range of frames of a trace, both ends included. */
type StretchOf = (trace: Trace) => { readonly from: number; readonly to: number };

/** Returns the index of the first note at or after a frame, in a list of ascending notes. */
function firstFrom(trace: Trace, notes: readonly number[], frame: number): number {
  let low = 0;
  let high = notes.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (trace.frame[notes[middle]!]! >= frame) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Calls back for every matching event of a range, in order, until the callback asks to stop. */
function walk(
  { trace, notesOf }: TraceIndex,
  { kind, subject, isMatch }: Matcher,
  from: number,
  to: number,
  see: (note: number, frame: number) => boolean | void,
): void {
  const notes = notesOf(kind, subject);
  for (let k = firstFrom(trace, notes, from); k < notes.length; k++) {
    const note = notes[k]!;
    const frame = trace.frame[note]!;
    if (frame > to) return;
    if (isMatch(trace, note) && see(note, frame) === true) return;
  }
}

function judgeHappens(matcher: Matcher, stretch: StretchOf, at: number, within: number): CheckJudge {
  return index => {
    const { from, to } = stretch(index.trace);
    let nearest = -1;
    walk(index, matcher, from, to, (_note, f) => {
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
  return index => {
    const { from, to } = stretch(index.trace);
    let found = -1;
    walk(index, matcher, from, to, (_note, f) => {
      found = f;
      return true;
    });
    return found < 0 ? { ok: true } : { ok: false, why: "happened", f: found };
  };
}

function judgeCounts(matcher: Matcher, stretch: StretchOf, min: number, max: number): CheckJudge {
  return index => {
    const { from, to } = stretch(index.trace);
    let count = 0;
    walk(index, matcher, from, to, () => void count++);
    if (count < min) return { ok: false, why: "too-few", count };
    if (count > max) return { ok: false, why: "too-many", count };
    return { ok: true, count };
  };
}

function judgeOrder(matchers: readonly Matcher[], stretch: StretchOf): CheckJudge {
  return index => {
    const { from, to } = stretch(index.trace);
    const used = new Set<number>();
    let last = from;
    for (const matcher of matchers) {
      let found = -1;
      walk(index, matcher, last, to, note => {
        if (used.has(note)) return false;
        found = note;
        return true;
      });
      if (found < 0) return { ok: false, why: "broken", reached: used.size };
      used.add(found);
      last = index.trace.frame[found]!;
    }
    return { ok: true };
  };
}

/** `within` is Infinity if the answer may come at any time. */
function judgeAnswers(
  control: number,
  isAnswering: (move: number) => boolean,
  within: number,
  stretch: StretchOf,
): CheckJudge {
  const presses: Matcher = {
    kind: notes.edge.code,
    subject: control,
    isMatch: (trace, note) => notes.edge.isDown(trace, note) === 1,
  };
  return index => {
    const { trace } = index;
    const { from, to } = stretch(trace);
    const answered = new Set<number>();
    for (const { edge, f, move } of index.answersTo(control))
      if (f - edge <= within && isAnswering(move)) answered.add(edge);
    let count = 0;
    let first = -1;
    walk(index, presses, from, to, (_note, f) => {
      if (answered.has(f)) return;
      if (count === 0) first = f;
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
  return ({ trace }) => {
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
 * Compiles a check against a program, the kit compiled at the rate to judge at. `kitRateHz` is the kit's own
 * rate; times in the check are written in its frames. Returns one issue for every id the kit lacks, with its
 * path inside the check. Verdicts follow docs/check-rules.md exactly; the indexed trace must be complete.
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
    return { kind: -1, subject: -1, isMatch: () => false };
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
      const wanted = check.move === undefined ? -1 : placeOf("moves", "move", check.move, "move");
      const isAnswering = (move: number) => check.move === undefined || move === wanted;
      const within = check.within === undefined ? Infinity : leeway(check.within);
      return judgeAnswers(control, isAnswering, within, stretch);
    }
    return judgeSame(program, check.same, kitRateHz, leeway(check.slip ?? "0f"), stretch);
  })();
  return issues.length > 0 ? { ok: false, issues } : { ok: true, value: judge, warnings: [] };
}
