import {
  firstNoteAfter,
  lapseWords,
  notes,
  TICKS,
  type PatternProgram,
  type Program,
  type Trace,
} from "#core";

type Sequence = Extract<PatternProgram, { readonly kind: "sequence" }>;

/** How the tries at a sequence went in a trace. */
export interface Tries {
  /** How many got at least as far as each step; the last is how many fired. */
  readonly reached: readonly number[];
  /** For each step after the first: the gaps of the tries that fired, in frames. */
  readonly gaps: readonly (readonly number[])[];
  /** How the tries that did not fire ended, counted by reason. */
  readonly broken: Readonly<Record<string, number>>;
  /** For each step after the first: how many frames after the step before it came, or would have, in the tries that failed at it. */
  readonly missed: readonly (readonly number[])[];
}

/** The frame on which a press that began on a frame is let go, Infinity if never. */
function releaseAfter(trace: Trace, control: number, frame: number): number {
  for (let i = firstNoteAfter(trace, frame); i < trace.count; i++) {
    if (trace.kind[i] !== notes.EDGE || trace.subject[i] !== control) continue;
    if (trace.payload[trace.at[i]!] === 0) return trace.frame[i]!;
  }
  return Infinity;
}

/**
 * The frame on which each step of a fire was made, at full speed; undefined where the edges do not tell. A fire names
 * each edge once: a release after a hold of the same press has no edge of its own.
 */
function stepFrames(
  program: Program,
  pattern: Sequence,
  trace: Trace,
  keys: readonly number[],
): number[] | undefined {
  const frameOf = (key: number) => Math.floor(key / program.sourceCount);
  const isOf = (key: number | undefined, control: number) =>
    key !== undefined && key % program.sourceCount === control;
  let at = 0;
  const made = pattern.steps.map(step => {
    if (step.does === "release") {
      const key = isOf(keys[at], step.control)
        ? keys[at++]
        : keys.slice(0, at).findLast(used => isOf(used, step.control));
      return key === undefined ? NaN : releaseAfter(trace, step.control, frameOf(key));
    }
    const own = keys.slice(at, (at += step.does === "together" ? step.controls.length : 1));
    const last = Math.max(...own.map(frameOf));
    return step.does === "hold" || step.does === "face" ? last + Math.ceil(step.forTicks / TICKS) : last;
  });
  return at === keys.length && made.every(Number.isFinite) ? made : undefined;
}

/** How long after a lapse a press for the step that was wanted still counts as meant for it. Frames. */
const MEANT_WITHIN = 90;

/** The controls whose edge makes a step, and whether that is their press; none for a hold or a turn, which no edge makes. */
function edgeOf(step: Sequence["steps"][number]): {
  readonly controls: readonly number[];
  readonly isPress: boolean;
} {
  if (step.does === "together") return { controls: step.controls, isPress: true };
  if (step.does === "release") return { controls: [step.control], isPress: false };
  return { controls: step.does === "press" ? [step.control] : [], isPress: true };
}

/**
 * By how much a try fell short that lapsed with so many steps made: from the edge that made the last of them to the one that
 * would have made the next, if one came about then. Undefined where the edges do not tell.
 */
function missOf(pattern: Sequence, trace: Trace, made: number, lapsed: number): number | undefined {
  const before = edgeOf(pattern.steps[made - 1]!);
  const next = edgeOf(pattern.steps[made]!);
  const isEdge = (i: number, { controls, isPress }: ReturnType<typeof edgeOf>) =>
    trace.kind[i] === notes.EDGE &&
    controls.includes(trace.subject[i]!) &&
    (trace.payload[trace.at[i]!] === 1) === isPress;
  let last = -1;
  for (let i = firstNoteAfter(trace, lapsed) - 1; i >= 0 && last < 0; i--)
    if (isEdge(i, before)) last = trace.frame[i]!;
  if (last < 0) return undefined;
  for (let i = firstNoteAfter(trace, last); i < trace.count && trace.frame[i]! <= lapsed + MEANT_WITHIN; i++)
    if (isEdge(i, next)) return trace.frame[i]! - last;
  return undefined;
}

/** Reads how every try at a sequence went: how far it got, and the gaps of those that came through. */
export function listTries(program: Program, traces: readonly Trace[], index: number): Tries {
  const pattern = program.patterns[index] as Sequence;
  const reached = pattern.steps.map(() => 0);
  const gaps: number[][] = pattern.steps.slice(1).map(() => []);
  const missed: number[][] = pattern.steps.slice(1).map(() => []);
  const broken: Record<string, number> = {};
  for (const trace of traces) {
    for (let i = 0; i < trace.count; i++) {
      if (trace.subject[i] !== index) continue;
      const at = trace.at[i]!;
      if (trace.kind[i] === notes.FIRE) {
        for (let k = 0; k < reached.length; k++) reached[k]!++;
        const keys = Array.from(trace.payload.subarray(at + 1, at + 1 + trace.payload[at]!));
        const frames = stepFrames(program, pattern, trace, keys);
        frames?.slice(1).forEach((frame, k) => gaps[k]!.push(frame - frames[k]!));
      } else if (trace.kind[i] === notes.LAPSE) {
        const steps = trace.payload[at + 1]!;
        for (let k = 0; k < steps; k++) reached[k]!++;
        const reason = lapseWords(trace.payload[at]!);
        broken[reason] = (broken[reason] ?? 0) + 1;
        const gap =
          steps > 0 && steps < pattern.steps.length
            ? missOf(pattern, trace, steps, trace.frame[i]!)
            : undefined;
        if (gap !== undefined) missed[steps - 1]!.push(gap);
      }
    }
  }
  return { reached, gaps, broken, missed };
}
