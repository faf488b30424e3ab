import { lapseWords, notes, TICKS, type PatternProgram, type Program, type Trace } from "#core";

type Sequence = Extract<PatternProgram, { readonly kind: "sequence" }>;

/** How the tries at a sequence went in a trace. */
export interface Tries {
  /** How many got at least as far as each step; the last is how many fired. */
  readonly reached: readonly number[];
  /** For each step after the first: the gaps of the tries that fired, in frames. */
  readonly gaps: readonly (readonly number[])[];
  /** How the tries that did not fire ended, counted by reason. */
  readonly broken: Readonly<Record<string, number>>;
}

/** The frame on which a press that began on a frame is let go, Infinity if never. */
function releaseAfter(trace: Trace, control: number, frame: number): number {
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.EDGE || trace.subject[i] !== control || trace.frame[i]! <= frame) continue;
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

/** Reads how every try at a sequence went: how far it got, and the gaps of those that came through. */
export function listTries(program: Program, traces: readonly Trace[], index: number): Tries {
  const pattern = program.patterns[index] as Sequence;
  const reached = pattern.steps.map(() => 0);
  const gaps: number[][] = pattern.steps.slice(1).map(() => []);
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
      }
    }
  }
  return { reached, gaps, broken };
}
