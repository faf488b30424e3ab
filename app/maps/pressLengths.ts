import {
  answeredStretch,
  clockOfTrace,
  framesBetween,
  parseFrames,
  traitsOf,
  writeAt,
  type Issue,
  type Kit,
  type Pattern,
  type Program,
  type Result,
} from "#core";
import type { Rules } from "#stage";
import type { TakeRead } from "./windowDots";

/**
 * A range of press lengths on one control with its result, or none (`name` undefined). Frames, both ends
 * included.
 */
export interface LengthStretch {
  readonly from: number;
  readonly to: number;
  readonly patternIds: readonly string[];
}

/**
 * A released press of a control: its length on the clock of the rule that judged it, and its result among the
 * map's rules.
 */
export interface LengthDot {
  readonly length: number;
  /** The frames of its press and release edges. */
  readonly press: number;
  readonly frame: number;
  /**
   * `answered`: one of the rules fired with it; `silent`: they saw it and all lapsed; `unheard`: none saw it.
   */
  readonly became: "answered" | "silent" | "unheard";
}

/** Returns the patterns on a control whose press lengths the map shows, by index. */
export function patternsOfControl({ patterns }: Program, control: number): number[] {
  return patterns.flatMap((pattern, i) =>
    !pattern.isOff && "control" in pattern && pattern.control === control ? [i] : [],
  );
}

/**
 * Returns every released press of a control in a take with its result, as the trace has it, including modes,
 * hiding and hit stops. The length is in frames of the clock of the rule that fired with it, otherwise of the
 * one that lapsed, otherwise in frames of the take. `own`: the patterns on that control by index, for callers with many takes.
 */
export function listLengthDots(
  { program, trace, outcomes }: TakeRead,
  control: number,
  own: ReadonlySet<number> = new Set(patternsOfControl(program, control)),
): LengthDot[] {
  const clock = clockOfTrace(trace);
  const dots: LengthDot[] = [];
  for (const { control: of, frame: press, released: frame, fires, lapses } of outcomes.presses) {
    if (of !== control || frame === undefined) continue;
    const fired = fires.find(({ pattern }) => own.has(pattern));
    const judge = fired ?? lapses.find(({ pattern }) => own.has(pattern));
    const isReal = judge === undefined || program.patterns[judge.pattern]!.isReal;
    const length = framesBetween(clock, isReal, press, frame);
    dots.push({ length, press, frame, became: fired ? "answered" : judge ? "silent" : "unheard" });
  }
  return dots;
}

/**
 * Returns the press lengths on a control, from 1 frame to `upTo`, split wherever the answering rules change.
 */
export function listStretches(program: Program, control: number, upTo: number): LengthStretch[] {
  const answered = program.patterns.flatMap(pattern => {
    if (pattern.isOff || !("control" in pattern) || pattern.control !== control) return [];
    const stretch = answeredStretch(pattern);
    // A rule that answers no length must not split a stretch.
    return stretch && stretch.from <= stretch.to ? [stretch] : [];
  });
  const begins = new Set([1, ...answered.flatMap(({ from, to }) => [from, to + 1])]);
  const starts = [...begins].filter(frames => frames >= 1 && frames <= upTo).sort((a, b) => a - b);
  return starts.map((from, k) => ({
    from,
    to: (starts[k + 1] ?? upTo + 1) - 1,
    patternIds: answered.filter(s => s.from <= from && from <= s.to).map(s => s.id),
  }));
}

/** Warnings about a rule that can never apply. */
const BROKEN = new Set(["never-fires", "never-full", "unreachable-move", "never-starts"]);

/** Returns whether a change makes a rule inapplicable that was not so before. Both compiled. */
export function findBroken(before: Result<Rules>, after: Result<Rules>): boolean {
  const broken = (result: Result<Rules>) =>
    (result.ok ? result.warnings : []).filter(issue => BROKEN.has(issue.code)).length;
  return broken(after) > broken(before);
}

/**
 * Returns the key under which an intended stretch without an answer, or with several, is remembered: its
 * control and its rules, whatever their numbers. Empty for a stretch with a single answer or at an end.
 */
export function wantedKey(controlId: string, stretches: readonly LengthStretch[], at: number): string {
  const { patternIds } = stretches[at]!;
  if (patternIds.length > 1) return `double ${controlId} ${[...patternIds].sort().join(" ")}`;
  const about = [stretches[at - 1], stretches[at + 1]].map(other => other?.patternIds[0]);
  if (patternIds.length === 1 || about.includes(undefined)) return "";
  return `dead ${controlId} ${[...about].sort().join(" ")}`;
}

/** Returns the same key for a warning about such a stretch; empty for other warnings. */
export function wantedKeyOf(issue: Issue, kit: Kit): string {
  const [list, index] = issue.path;
  const pattern = list === "patterns" ? kit.patterns[Number(index)] : undefined;
  const { oneId, otherId, lowerId, upperId } = issue.facts;
  if (!pattern || !("control" in pattern)) return "";
  if (issue.code === "double-stretch")
    return `double ${pattern.control} ${[oneId, otherId].sort().join(" ")}`;
  if (issue.code === "dead-stretch") return `dead ${pattern.control} ${[lowerId, upperId].sort().join(" ")}`;
  return "";
}

/** A change that closes a dead stretch, or separates two rules that answer the same press. */
export interface Closing {
  readonly words: string;
  readonly edit: (kit: Kit) => Kit;
}

const limitFields = (pattern: Pattern) => traitsOf(pattern.kind).limits?.(pattern) ?? {};

function set(kit: Kit, id: string, field: string, frames: number): Kit {
  return writeAt(
    kit,
    ["patterns", kit.patterns.findIndex(pattern => pattern.id === id), field],
    `${frames}f`,
  );
}

/**
 * Returns the changes that close a stretch. For a dead one: the rule before it extends up, or the rule after
 * it extends down; for one with several answers: any of them is narrowed. A stretch at the very end or
 * without neighbours has none. `findBroken` tests whether a change makes a rule inapplicable.
 */
export function closeStretch(kit: Kit, stretch: LengthStretch, controlId: string): Closing[] {
  const own = kit.patterns.filter(
    pattern => "control" in pattern && pattern.control === controlId && !pattern.off,
  );
  const nameOf = (id: string) => own.find(pattern => pattern.id === id)?.name ?? id;
  if (stretch.patternIds.length > 1)
    return stretch.patternIds.flatMap((id): Closing[] => {
      const { upper } = limitFields(own.find(pattern => pattern.id === id)!);
      if (!upper || stretch.from === 1) return [];
      return [
        {
          words: `End ${nameOf(id)} at ${stretch.from - 1}f, so that one alone answers`,
          edit: now => set(now, id, upper, stretch.from - 1),
        },
      ];
    });
  if (stretch.patternIds.length === 1) return [];
  const framesOf = (pattern: Pattern, field: string | undefined, rounding: "atLeast" | "atMost") => {
    const written = field === undefined ? undefined : (pattern as unknown as Record<string, unknown>)[field];
    return typeof written === "string" ? parseFrames(written, kit.rate, rounding) : undefined;
  };
  const below = own.find(
    pattern => framesOf(pattern, limitFields(pattern).upper, "atMost") === stretch.from - 1,
  );
  const above = own.find(
    pattern => framesOf(pattern, limitFields(pattern).lower, "atLeast") === stretch.to + 1,
  );
  if (!below || !above) return [];
  return [
    {
      words: `Let ${below.name} reach up to ${stretch.to}f`,
      edit: now => set(now, below.id, limitFields(below).upper!, stretch.to),
    },
    {
      words: `Let ${above.name} begin at ${stretch.from}f`,
      edit: now => set(now, above.id, limitFields(above).lower!, stretch.from),
    },
  ];
}
