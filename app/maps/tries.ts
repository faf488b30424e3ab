import {
  clockOfTrace,
  edgesOf,
  firstNoteAfter,
  frameAtAge,
  framesBetween,
  keyFrame,
  keySource,
  lapseWords,
  notes,
  type PatternProgram,
  type Program,
  type TakeClock,
  type Trace,
} from "#core";

type Sequence = Extract<PatternProgram, { readonly kind: "sequence" }>;

/** The attempts at a sequence. Frames are those of the sequence's clock. */
export interface Tries {
  /** The number that fired; one cancelled on the frame of its last step did not. */
  readonly fired: number;
  /** The number that reached at least each step. */
  readonly reached: readonly number[];
  /** For each step after the first: the gaps of the attempts that fired, in frames. */
  readonly gaps: readonly (readonly number[])[];
  /** The ends of attempts that did not fire, counted by reason. */
  readonly broken: Readonly<Record<string, number>>;
  /**
   * For each step after the first, of the attempts that failed at it: the frames from the previous step until
   * the failed step came, or would have come.
   */
  readonly missed: readonly (readonly number[])[];
}

/** Returns the release frame of a press that began on a frame, Infinity if it has none. */
function releaseAfter(trace: Trace, control: number, frame: number): number {
  for (let i = firstNoteAfter(trace, frame); i < trace.count; i++) {
    if (trace.kind[i] !== notes.edge.code || trace.subject[i] !== control) continue;
    if (notes.edge.isDown(trace, i) === 0) return trace.frame[i]!;
  }
  return Infinity;
}

/**
 * Returns the frame of each step of a fire; undefined if its edges do not determine it. A fire lists each
 * edge once: a release after a hold of the same press has no edge of its own.
 */
function stepFrames(
  program: Program,
  pattern: Sequence,
  trace: Trace,
  clock: TakeClock,
  keys: readonly number[],
): number[] | undefined {
  const frameOf = (key: number) => keyFrame(program, key);
  const isOf = (key: number | undefined, control: number) =>
    key !== undefined && keySource(program, key) === control;
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
    const isHeld = step.does === "hold" || step.does === "face";
    return isHeld ? frameAtAge(clock, pattern.isReal, last, step.forTicks) : last;
  });
  return at === keys.length && made.every(Number.isFinite) ? made : undefined;
}

/** The time after a lapse within which a press for the expected step counts as intended for it, in frames. */
const MEANT_WITHIN = 90;

/**
 * Returns the controls whose edge makes a step, and whether it is their press; none for a hold or a turn,
 * which no edge makes.
 */
function edgeOf(step: Sequence["steps"][number]): {
  readonly controls: readonly number[];
  readonly isPress: boolean;
} {
  if (step.does === "together") return { controls: step.controls, isPress: true };
  if (step.does === "release") return { controls: [step.control], isPress: false };
  return { controls: step.does === "press" ? [step.control] : [], isPress: true };
}

/**
 * Returns by how much an attempt that lapsed after a number of steps missed the next one: from the edge of
 * the last step to the one that would have made the next, if it came then. Undefined if the edges do not
 * determine it.
 */
function missOf(
  pattern: Sequence,
  trace: Trace,
  clock: TakeClock,
  made: number,
  lapsed: number,
): number | undefined {
  const before = edgeOf(pattern.steps[made - 1]!);
  const next = edgeOf(pattern.steps[made]!);
  const isEdge = (i: number, { controls, isPress }: ReturnType<typeof edgeOf>) =>
    trace.kind[i] === notes.edge.code &&
    controls.includes(trace.subject[i]!) &&
    (notes.edge.isDown(trace, i) === 1) === isPress;
  let last = -1;
  for (let i = firstNoteAfter(trace, lapsed) - 1; i >= 0 && last < 0; i--)
    if (isEdge(i, before)) last = trace.frame[i]!;
  if (last < 0) return undefined;
  for (let i = firstNoteAfter(trace, last); i < trace.count && trace.frame[i]! <= lapsed + MEANT_WITHIN; i++)
    if (isEdge(i, next)) return framesBetween(clock, pattern.isReal, last, trace.frame[i]!);
  return undefined;
}

/** Returns how every attempt at a sequence went: how far it got, and the gaps of those that fired. */
export function listTries(program: Program, traces: readonly Trace[], index: number): Tries {
  const pattern = program.patterns[index] as Sequence;
  const reached = pattern.steps.map(() => 0);
  const gaps: number[][] = pattern.steps.slice(1).map(() => []);
  const missed: number[][] = pattern.steps.slice(1).map(() => []);
  const broken: Record<string, number> = {};
  let fired = 0;
  for (const trace of traces) {
    const clock = clockOfTrace(trace);
    for (let i = 0; i < trace.count; i++) {
      if (trace.subject[i] !== index) continue;
      if (trace.kind[i] === notes.fired.code) {
        fired++;
        for (let k = 0; k < reached.length; k++) reached[k]!++;
        const frames = stepFrames(program, pattern, trace, clock, edgesOf(trace, i));
        frames
          ?.slice(1)
          .forEach((frame, k) => gaps[k]!.push(framesBetween(clock, pattern.isReal, frames[k]!, frame)));
      } else if (trace.kind[i] === notes.lapsed.code) {
        const steps = notes.lapsed.reached(trace, i);
        for (let k = 0; k < steps; k++) reached[k]!++;
        const reason = lapseWords(notes.lapsed.reason(trace, i));
        broken[reason] = (broken[reason] ?? 0) + 1;
        const gap =
          steps > 0 && steps < pattern.steps.length
            ? missOf(pattern, trace, clock, steps, trace.frame[i]!)
            : undefined;
        if (gap !== undefined) missed[steps - 1]!.push(gap);
      }
    }
  }
  return { fired, reached, gaps, broken, missed };
}
