import { nowOn } from "../program/moments";
import type { MoveProgram, Program } from "../program/program";
import { growPool, REQUEST_HEAD, type State } from "../program/state";
import { LOSS_REASONS, LOST, note, put, REQUEST, type LossReason, type Trace } from "../trace/trace";

/** Columns of a request's row in the pool. */
export const MOVE = 0;
export const MADE = 1;
export const MADE_TICKS = 2;
/** The first frame on which its defer has passed and its tick count; −1 before. */
export const DUE = 3;
export const DUE_TICKS = 4;
/** PENDING, DONE, or 2 + the reason it is lost for on this frame. */
export const FATE = 5;
export const EDGE_COUNT = 6;
/** 1 for a request repeated while held: it lives for its own frame and is noted only if it is performed. */
export const ANEW = 7;

export const PENDING = 0;
export const DONE = 1;
export const LOST_FATE = 2;

export function requestStride(program: Program): number {
  return REQUEST_HEAD + program.edgeRoom;
}

/** Returns the current time on the move's clock, in ticks. */
export function moveNow(move: MoveProgram, state: State): number {
  return nowOn(move.isReal, state);
}

/** Returns the current time on the clock that ages its requests, in ticks. */
export function memoryNow(move: MoveProgram, state: State): number {
  return nowOn(move.isMemoryReal, state);
}

/** The reasons as their places in LOSS_REASONS. */
const REASON_CODES = Object.fromEntries(LOSS_REASONS.map((reason, code) => [reason, code])) as Record<
  LossReason,
  number
>;

/** Encodes a fate: lost for this reason, with the gate concerned or the move performed instead. */
export function lostFate(reason: LossReason, because = 0): number {
  return LOST_FATE + REASON_CODES[reason] + because * 16;
}

/** Returns the reason of a fate made by `lostFate`, as an index into LOSS_REASONS. */
export const reasonOfFate = (fate: number): number => (fate - LOST_FATE) % 16;

const GATE_REASON = REASON_CODES.gate;

/** Notes the loss of the request at row `at` of the pool. */
function noteLost(state: State, trace: Trace, at: number): void {
  const fate = state.requests[at + FATE]!;
  note(trace, state.frame, LOST, state.requests[at + MOVE]!);
  put(trace, state.requests[at + MADE]!);
  const reason = reasonOfFate(fate);
  const because = Math.floor((fate - LOST_FATE) / 16);
  put(trace, reason);
  put(trace, because);
  const isSpent = reason === GATE_REASON && state.gateOpen[because] === 1;
  put(trace, isSpent ? state.spentFrame[because]! : -1);
}

/**
 * Returns the rows of the requests that `wants` takes, by the places of their moves in the kit, then older
 * first.
 */
export function listInKitOrder(
  program: Program,
  { requests: pool, requestCount }: State,
  wants: (pool: State["requests"], at: number) => boolean,
): readonly number[] {
  const stride = requestStride(program);
  const rows: number[] = [];
  for (let r = 0; r < requestCount; r++) if (wants(pool, r * stride)) rows.push(r * stride);
  return rows.length > 1 ? rows.sort((a, b) => pool[a + MOVE]! - pool[b + MOVE]! || a - b) : rows;
}

const isLostNow = (pool: State["requests"], at: number) =>
  pool[at + FATE]! >= LOST_FATE && pool[at + ANEW] === 0;

/**
 * Notes every request lost on this frame, in kit order and older first, then removes all completed requests
 * from the pool.
 */
export function clearRequests(program: Program, state: State, trace: Trace): void {
  const stride = requestStride(program);
  const pool = state.requests;
  let isAnyOver = false;
  for (let r = 0; r < state.requestCount; r++) if (pool[r * stride + FATE] !== PENDING) isAnyOver = true;
  if (!isAnyOver) return;
  for (const at of listInKitOrder(program, state, isLostNow)) noteLost(state, trace, at);
  let kept = 0;
  for (let r = 0; r < state.requestCount; r++) {
    if (pool[r * stride + FATE] !== PENDING) continue;
    if (kept !== r) pool.copyWithin(kept * stride, r * stride, (r + 1) * stride);
    kept++;
  }
  state.requestCount = kept;
}

/** Loses every pending request of a move, because its mode has ended. */
export function loseRequestsOfMove(
  program: Program,
  state: State,
  trace: Trace,
  m: number,
  why: LossReason,
): void {
  const stride = requestStride(program);
  for (let r = 0; r < state.requestCount; r++) {
    if (state.requests[r * stride + MOVE] === m) state.requests[r * stride + FATE] = lostFate(why);
  }
  clearRequests(program, state, trace);
}

/** Notes a request and its edges. */
export function noteRequest(state: State, trace: Trace, at: number): void {
  const pool = state.requests;
  const count = pool[at + EDGE_COUNT]!;
  note(trace, state.frame, REQUEST, pool[at + MOVE]!);
  put(trace, count);
  for (let k = 0; k < count; k++) put(trace, pool[at + REQUEST_HEAD + k]!);
}

/** Adds a request of move `m` with the edges of its pattern's last fire, not yet noted; returns its row. */
export function addRequest(program: Program, state: State, m: number): number {
  const stride = requestStride(program);
  const at = state.requestCount * stride;
  state.requests = growPool(state.requests, at + stride);
  const pool = state.requests;
  const move = program.moves[m]!;
  const pattern = move.pattern;
  const count = state.fireEdgeCount[pattern]!;
  pool[at + MOVE] = m;
  pool[at + MADE] = state.frame;
  pool[at + MADE_TICKS] = memoryNow(move, state);
  pool[at + DUE] = -1;
  pool[at + DUE_TICKS] = 0;
  pool[at + FATE] = PENDING;
  pool[at + EDGE_COUNT] = count;
  pool[at + ANEW] = 0;
  for (let k = 0; k < count; k++)
    pool[at + REQUEST_HEAD + k] = state.fireEdges[pattern * program.edgeRoom + k]!;
  state.requestCount++;
  return at;
}

/** Returns whether two requests share an edge. */
export function shareEdge(state: State, a: number, b: number): boolean {
  const pool = state.requests;
  for (let i = 0; i < pool[a + EDGE_COUNT]!; i++) {
    for (let k = 0; k < pool[b + EDGE_COUNT]!; k++) {
      if (pool[a + REQUEST_HEAD + i] === pool[b + REQUEST_HEAD + k]) return true;
    }
  }
  return false;
}

/** Returns whether a prompt has taken one of the request's edges. */
export function isTaken(state: State, at: number): boolean {
  const pool = state.requests;
  for (let t = state.takenCount - 1; t >= 0; t--) {
    for (let k = 0; k < pool[at + EDGE_COUNT]!; k++)
      if (pool[at + REQUEST_HEAD + k] === state.taken[t]) return true;
  }
  return false;
}
