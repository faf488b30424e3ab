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

/** Rules and bodies as they stand after a frame. */
export interface Staging {
  readonly state: State;
  readonly bodies: StageState | undefined;
}

/** Both before frame 0; the bodies have told which gates they hold open. */
export function createStaging({ program, stage }: Rules): Staging {
  const state = createState(program);
  if (!stage) return { state, bodies: undefined };
  const kind = stageKind(stage.kind);
  const bodies = kind.create(stage);
  kind.report(stage, bodies, state);
  return { state, bodies };
}

/** Makes `to` equal to `from`, both of the same rules. */
export function copyStaging({ program, stage }: Rules, from: Staging, to: Staging): void {
  copyState(program, from.state, to.state);
  if (stage && from.bodies && to.bodies) Object.assign(to.bodies, stageKind(stage.kind).copy(from.bodies));
}

/**
 * What the bodies hear of a move performed on this frame. A fire that came of letting go holds nothing on; a control
 * pressed anew since then is another press.
 */
function toldOf(program: Program, state: State, move: number): Performed {
  const { pattern } = program.moves[move]!;
  const { kind } = program.patterns[pattern]!;
  const output = kind === "charge" ? state.carried[pattern * CARRIED + 3]! : 0;
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
 * One frame of rules and stage, the only place where it is written: the stage's say in the clock; the core's step; every
 * move performed acts on the bodies; they move, and report their gates for the next frame. Changes `staging` and
 * `trace`; `input` is as it was. Source: frame rules, section 3, step 9.
 */
export function stepStaging(rules: Rules, { state, bodies }: Staging, input: FrameInput, trace: Trace): void {
  const { program, stage } = rules;
  if (!stage || !bodies) return step(program, state, input, trace);
  const kind = stageKind(stage.kind);
  const since = trace.count;
  const takeSpeed = input.speedPercent;
  if (kind.speed) input.speedPercent = kind.speed(bodies, takeSpeed);
  step(program, state, input, trace);
  input.speedPercent = takeSpeed;
  for (let i = since; i < trace.count; i++) {
    if (trace.kind[i] !== notes.performed.code) continue;
    kind.act(stage, bodies, toldOf(program, state, trace.subject[i]!));
  }
  kind.step(stage, bodies, state, program.rateHz);
  kind.report(stage, bodies, state);
}

/** How many numbers a track of these rules has for each frame. */
export function trackStride({ stage }: Rules): number {
  return stage ? stageKind(stage.kind).trackStride : 0;
}

/** Writes how the bodies stand into a track, from a place on. */
export function writeTrack(bodies: StageState, track: { [place: number]: number }, at: number): void {
  stageKind(bodies.kind).writeTrack(bodies, track, at);
}

/** What a run on a stage gives: the trace, and how the bodies stood after each frame (`trackStride` numbers each). */
export interface StagedRun {
  readonly trace: Trace;
  readonly track: Float32Array;
}

/** A run that goes on part by part: a long one is cut so, and nothing else changes. */
export interface StagedCourse extends StagedRun {
  /** Runs up to a frame (not included), or to the end. */
  readonly runTo: (frame: number) => void;
}

/**
 * Runs rules and bodies up to a frame (not included) and writes their track. Where nothing comes in and no rule can
 * change, only the bodies move; where they are still as well, frames are passed over whole: the same as stepping each.
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
    const isIdle = frame > 0 && state.isQuiet && cursor.nextFrame > frame && !kind.speed;
    if (isIdle && kind.isStill?.(bodies)) {
      const next = Math.min(cursor.nextFrame, end);
      passOver(state, trace, next - frame);
      for (let k = frame * stride; k < next * stride; k++) track[k] = track[k - stride]!;
      continue;
    }
    if (isIdle) {
      passOver(state, trace, 1);
      kind.step(stage!, bodies, state, program.rateHz);
      kind.report(stage!, bodies, state);
    } else stepStaging(rules, staging, loadInput(cursor, frame), trace);
    kind.writeTrack(bodies, track, frame * stride);
  }
}

/** Begins to run a take's columns through rules and stage: the same steps as live play. */
export function beginRun(rules: Rules, columns: InputColumns): StagedCourse {
  const { program } = rules;
  const stride = trackStride(rules);
  const staging = createStaging(rules);
  const trace = createTrace(program.rateHz, 1024);
  const cursor = createInputCursor(program, columns);
  const track = new Float32Array(columns.frames * stride);
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

/** Runs a take's columns whole. Without bodies it is the core's own run. */
export function runRules(rules: Rules, columns: InputColumns): StagedRun {
  const course = beginRun(rules, columns);
  course.runTo(columns.frames);
  return { trace: course.trace, track: course.track };
}
