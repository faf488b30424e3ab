import { edgeKey, type PatternBase, type Program } from "../program/program";
import { CARRIED, FIRED, LAPSED, type State } from "../program/state";
import { FIRE, LAPSE, LAPSE_REASONS, note, put, type LapseReason, type Trace } from "../trace/trace";

/** Begins a fire of pattern `i`; follow it by `addEdge` for each edge, then `endFire`. */
export function beginFire(state: State, i: number): void {
  state.fireEdgeCount[i] = 0;
}

/** Adds an edge to the fire, once. */
export function addEdge(program: Program, state: State, i: number, key: number): void {
  const base = i * program.edgeRoom;
  const count = state.fireEdgeCount[i]!;
  for (let k = 0; k < count; k++) if (state.fireEdges[base + k] === key) return;
  state.fireEdges[base + count] = key;
  state.fireEdgeCount[i] = count + 1;
}

/** Adds the control's current (or last) press edge. */
export function addPress(program: Program, state: State, i: number, control: number): void {
  addEdge(program, state, i, edgeKey(state.pressFrame[control]!, control, program.sourceCount));
}

/** Ends a fire: sets the phase to fired and notes the fire with its payload. */
export function endFire(
  program: Program,
  state: State,
  trace: Trace,
  i: number,
  a = 0,
  b = 0,
  c = 0,
  d = 0,
): void {
  state.phase[i] = FIRED;
  state.hasFires = true;
  const carried = i * CARRIED;
  state.carried[carried] = a;
  state.carried[carried + 1] = b;
  state.carried[carried + 2] = c;
  state.carried[carried + 3] = d;
  note(trace, state.frame, FIRE, i);
  const count = state.fireEdgeCount[i]!;
  put(trace, count);
  for (let k = 0; k < count; k++) put(trace, state.fireEdges[i * program.edgeRoom + k]!);
  const { payloadSize } = program.patterns[i]!;
  for (let k = 0; k < payloadSize; k++) put(trace, state.carried[carried + k]!);
}

/** Fires on the press of one control, the most common case. */
export function firePress(
  program: Program,
  state: State,
  trace: Trace,
  i: number,
  control: number,
  a = 0,
  b = 0,
  c = 0,
  d = 0,
): void {
  beginFire(state, i);
  addPress(program, state, i, control);
  endFire(program, state, trace, i, a, b, c, d);
}

const REASON_CODES = Object.fromEntries(LAPSE_REASONS.map((reason, code) => [reason, code])) as Record<
  LapseReason,
  number
>;

/** Lapses pattern `i`. `reached` is the number of steps a sequence has made, −1 for other kinds. */
export function lapse(state: State, trace: Trace, i: number, why: LapseReason, reached = -1): void {
  state.phase[i] = LAPSED;
  note(trace, state.frame, LAPSE, i);
  put(trace, REASON_CODES[why]);
  put(trace, reached);
}

/** Sets a pattern's phase after a step in which it neither fired nor lapsed. */
export function setPhase(state: State, i: number, phase: number): void {
  if (state.phase[i] !== FIRED && state.phase[i] !== LAPSED) state.phase[i] = phase;
}

/** Steps a compiled pattern of one kind, and resets its attempt. */
export interface PatternStepper<P extends PatternBase> {
  /**
   * Steps one frame. The phase has been reset to idle; `fire` and `lapse` set it, otherwise `setPhase` does.
   * It sleeps from then on until a control it watches changes, unless it sets a time by `sleepUntil` or `stayAwake`s; a
   * fire and a lapse keep it awake for the next frame.
   */
  readonly step: (program: Program, pattern: P, state: State, trace: Trace, i: number) => void;
  /** Resets what it keeps outside its cells, as before frame 0. */
  readonly reset?: (pattern: P, state: State) => void;
  /** Discards all edges so far because the attempt was cancelled while a control was being hidden. */
  readonly cancel?: (pattern: P, state: State) => void;
  /** Returns the steps made in the current attempt, for a lapse. Absent means −1. */
  readonly reached?: (pattern: P, state: State) => number;
  /** Discards the current attempt because a control was hidden; the other controls keep their presses. */
  readonly restart?: (program: Program, pattern: P, state: State, i: number) => void;
  /**
   * Returns whether a later fire can include this edge (see edgeKey), other than as a press still down.
   * Absent means never.
   */
  readonly remembers?: (program: Program, pattern: P, state: State, key: number) => boolean;
}
