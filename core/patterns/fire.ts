import { edgeKey, type PatternBase, type Program } from "../run/program";
import { CARRIED, FIRED, LAPSED, type State } from "../run/state";
import { FIRE, LAPSE, LAPSE_REASONS, note, put, type LapseReason, type Trace } from "../trace/trace";

/** Begins a fire of pattern `i`; its edges follow by addEdge, then endFire. */
export function beginFire(state: State, i: number): void {
  state.fireEdgeCount[i] = 0;
}

/** Adds an edge, once. */
export function addEdge(program: Program, state: State, i: number, key: number): void {
  const base = i * program.edgeRoom;
  const count = state.fireEdgeCount[i]!;
  for (let k = 0; k < count; k++) if (state.fireEdges[base + k] === key) return;
  state.fireEdges[base + count] = key;
  state.fireEdgeCount[i] = count + 1;
}

/** Adds the control's present (or last) press edge. */
export function addPress(program: Program, state: State, i: number, control: number): void {
  addEdge(program, state, i, edgeKey(state.pressFrame[control]!, control, program.sourceCount));
}

/** Ends a fire: the pattern's phase is fired, and the trace has it with all it carries. */
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
  put(trace, a);
  if (program.patterns[i]!.kind !== "charge") return;
  put(trace, b);
  put(trace, c);
  put(trace, d);
}

/** Fires on one control's press, the commonest case. */
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

/** Lapses pattern `i`. `reached`: steps of a sequence, −1 for the other kinds. */
export function lapse(state: State, trace: Trace, i: number, why: LapseReason, reached = -1): void {
  state.phase[i] = LAPSED;
  state.awake[i] = 1;
  note(trace, state.frame, LAPSE, i);
  put(trace, REASON_CODES[why]);
  put(trace, reached);
}

/** What a pattern's phase is called after a step in which it neither fired nor lapsed. */
export function settle(state: State, i: number, phase: number): void {
  if (state.phase[i] !== FIRED && state.phase[i] !== LAPSED) state.phase[i] = phase;
}

/** A kind of pattern, compiled: what it does on a frame, and what it must forget when it starts over. */
export interface PatternStepper<P extends PatternBase> {
  /** One frame. The phase has been cleared to idle; fire and lapse set it, settle fills in the rest. Wakes itself by state.awake. */
  readonly step: (program: Program, pattern: P, state: State, trace: Trace, i: number) => void;
  /** Forgets the attempt under way because a control became hidden; its other controls keep their presses. */
  readonly restart?: (program: Program, pattern: P, state: State, i: number) => void;
  /** Could a later fire be made of this edge (see edgeKey), other than as a press that is still down? Left out: never. */
  readonly remembers?: (program: Program, pattern: P, state: State, key: number) => boolean;
}
