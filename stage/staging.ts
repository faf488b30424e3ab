import {
  CARRIED,
  copyState,
  createInputCursor,
  createState,
  createTrace,
  loadInput,
  notes,
  passOver,
  runOn,
  step,
  traitsOf,
  type FrameInput,
  type InputColumns,
  type InputCursor,
  type Program,
  type State,
  type Trace,
} from "#core";
import type { Performed } from "./kind";
import { stageKind, type StageState } from "./kinds";
import type { Rules } from "./rules";

/** The state of rules and bodies after a frame. */
export interface Staging {
  readonly state: State;
  readonly bodies: StageState | undefined;
}

/**
 * Creates the state before frame 0; the bodies have reported their open gates. There are none for rules without a
 * stage, and for a take in which the stage takes no part.
 */
export function createStaging({ program, unstaged, stage }: Rules, isUnstaged = false): Staging {
  const state = createState(isUnstaged ? unstaged : program);
  if (!stage || isUnstaged) return { state, bodies: undefined };
  const kind = stageKind(stage.kind);
  const bodies = kind.create(stage);
  kind.report(stage, bodies, state);
  return { state, bodies };
}

/** Copies `from` into `to`, both of the same rules. */
export function copyStaging({ program, stage }: Rules, from: Staging, to: Staging): void {
  copyState(program, from.state, to.state);
  if (stage && from.bodies && to.bodies) Object.assign(to.bodies, stageKind(stage.kind).copy(from.bodies));
}

/**
 * Describes a move performed on this frame for the bodies. A fire caused by a release holds no control; a
 * control pressed again since the fire is another press.
 */
function describePerformed(program: Program, state: State, move: number): Performed {
  const { pattern } = program.moves[move]!;
  const { kind, outputColumn } = program.patterns[pattern]!;
  const output = outputColumn < 0 ? 0 : state.carried[pattern * CARRIED + outputColumn]!;
  const firesLetGo = traitsOf(kind).firesLetGo?.(program.patterns[pattern]!) ?? false;
  const from = pattern * program.edgeRoom;
  const held: number[] = [];
  for (let k = 0; k < state.fireEdgeCount[pattern]!; k++) {
    const key = state.fireEdges[from + k]!;
    const control = key % program.sourceCount;
    if (control >= program.controls.length) continue;
    const isPresent = state.pressFrame[control] === Math.floor(key / program.sourceCount);
    if (firesLetGo && !(isPresent && state.down[control] === 1)) continue;
    held.push(control);
  }
  return { move, output, held: held.sort((a, b) => state.pressFrame[a]! - state.pressFrame[b]!) };
}

/**
 * Steps one frame of rules and stage: the stage sets the clock's speed; the core steps; every performed move
 * is applied to the bodies; they move and report their gates for the next frame. The only implementation of a
 * staged frame. Changes `staging` and `trace`, not `input`. Source: frame rules, section 3, step 9.
 */
export function stepStaging(rules: Rules, { state, bodies }: Staging, input: FrameInput, trace: Trace): void {
  const { program, unstaged, stage } = rules;
  if (!stage || !bodies) return step(unstaged, state, input, trace);
  const kind = stageKind(stage.kind);
  const since = trace.count;
  const takeSpeed = input.speedPercent;
  if (kind.speed) input.speedPercent = kind.speed(bodies, takeSpeed);
  step(program, state, input, trace);
  input.speedPercent = takeSpeed;
  for (let i = since; i < trace.count; i++) {
    if (trace.kind[i] !== notes.performed.code) continue;
    kind.act(stage, bodies, describePerformed(program, state, trace.subject[i]!));
  }
  kind.step(stage, bodies, state, program.rateHz, program);
  kind.report(stage, bodies, state);
}

/** Returns the number of values per frame in a track of these rules. */
export function trackStride({ stage }: Rules): number {
  return stage ? stageKind(stage.kind).trackStride : 0;
}

/** Writes the state of the bodies into a track, at an offset. */
export function writeTrack(bodies: StageState, track: { [place: number]: number }, at: number): void {
  stageKind(bodies.kind).writeTrack(bodies, track, at);
}

/** The result of a run on a stage: the trace, and the bodies after each frame (`trackStride` values each). */
export interface StagedRun {
  readonly trace: Trace;
  readonly track: Float32Array;
}

/** A run that can be continued in slices, with the same result. */
export interface StagedCourse extends StagedRun {
  /** Runs up to a frame (exclusive), or to the end. */
  readonly runTo: (frame: number) => void;
}

/**
 * Runs rules and bodies up to a frame (exclusive) and writes their track. On frames without input on which no rule can
 * change only the bodies move; if they are still as well, the frames are skipped. Equivalent to stepping
 * each frame.
 */
function runBodies(
  rules: Rules,
  staging: Staging & { readonly bodies: StageState },
  cursor: InputCursor,
  trace: Trace,
  track: Float32Array,
  end: number,
): void {
  const { program, stage } = rules;
  const { state, bodies } = staging;
  const kind = stageKind(bodies.kind);
  const stride = kind.trackStride;
  for (let frame = state.frame + 1; frame < end; frame = state.frame + 1) {
    const isIdle = frame > 0 && cursor.nextFrame > frame && !kind.speed;
    if (isIdle && kind.isStill?.(bodies)) {
      const next = frame + passOver(program, state, trace, Math.min(cursor.nextFrame, end) - frame);
      for (let k = frame * stride; k < next * stride; k++) track[k] = track[k - stride]!;
      if (next > frame) continue;
    }
    if (isIdle && passOver(program, state, trace, 1) > 0) {
      kind.step(stage!, bodies, state, program.rateHz, program);
      kind.report(stage!, bodies, state);
    } else stepStaging(rules, staging, loadInput(cursor, frame), trace);
    kind.writeTrack(bodies, track, frame * stride);
  }
}

/** Fills the track of a run without its stage: the bodies rest where they begin. */
function fillTrack(rules: Rules, track: Float32Array): void {
  const { bodies } = createStaging(rules);
  const stride = trackStride(rules);
  if (!bodies || track.length === 0) return;
  writeTrack(bodies, track, 0);
  for (let at = stride; at < track.length; at += stride) track.copyWithin(at, 0, stride);
}

/** Starts a run of a take's columns through rules and stage, with the same steps as live play. `waits`: see Trace. */
export function beginRun(rules: Rules, columns: InputColumns, waits?: number[]): StagedCourse {
  const program = columns.isUnstaged ? rules.unstaged : rules.program;
  const stride = trackStride(rules);
  const staging = createStaging(rules, columns.isUnstaged);
  const trace = createTrace(program.rateHz, 1024, waits);
  const cursor = createInputCursor(program, columns);
  const track = new Float32Array(columns.frames * stride);
  if (columns.isUnstaged) fillTrack(rules, track);
  return {
    trace,
    track,
    runTo(upTo) {
      const end = Math.min(upTo, columns.frames);
      const { state, bodies } = staging;
      if (bodies) runBodies(rules, { state, bodies }, cursor, trace, track, end);
      else runOn(program, state, cursor, columns, trace, end);
      trace.frames = end;
    },
  };
}

/**
 * Runs a take's columns to the end. Without bodies it equals the core's `run`. Example:
 *
 *     const rules = compileRules(kit);
 *     if (rules.ok) runRules(rules.value, readTake(rules.value.program, take)).trace;
 */
export function runRules(rules: Rules, columns: InputColumns, waits?: number[]): StagedRun {
  const course = beginRun(rules, columns, waits);
  course.runTo(columns.frames);
  return { trace: course.trace, track: course.track };
}
