import type { MoveProgram, Program } from "../program/program";
import { CARRIED, FIRED, SUSTAINED, type State } from "../program/state";
import { note, PERFORMED, put, type Trace } from "../trace/trace";
import { becomeDue, findObstacle, FORGIVEN, isOver, isReady, isWhole, judgeNeed } from "./readiness";
import {
  addRequest,
  ANEW,
  clearRequests,
  DONE,
  DUE,
  DUE_TICKS,
  FATE,
  isTaken,
  listInKitOrder,
  lostFate,
  MADE,
  MADE_TICKS,
  MOVE,
  moveNow,
  noteRequest,
  PENDING,
  requestStride,
  shareEdge,
} from "./requests";

/** Returns whether the fire on this frame satisfies the move's `when`. */
function isWanted(state: State, move: MoveProgram): boolean {
  const carried = move.pattern * CARRIED;
  if (move.whenCount >= 0 && state.carried[carried + move.countColumn] !== move.whenCount) return false;
  return move.whenLevel < 0 || state.carried[carried + move.levelColumn]! >= move.whenLevel;
}

/** Replaces older requests in the slot of a new one, if the new one can be kept or performed at once. */
function replaceOlder(program: Program, state: State, at: number): void {
  const move = program.moves[state.requests[at + MOVE]!]!;
  if (move.deferTicks + move.bufferTicks === 0 && !isReady(program, state, at)) return;
  const stride = requestStride(program);
  for (let r = 0; r < state.requestCount; r++) {
    const other = r * stride;
    if (state.requests[other + FATE] !== PENDING || state.requests[other + MADE] === state.frame) continue;
    if (program.moves[state.requests[other + MOVE]!]!.slot === move.slot)
      state.requests[other + FATE] = lostFate("replaced", state.requests[at + MOVE]!);
  }
}

/** Returns whether the move has a pending request. */
function isPending(program: Program, state: State, m: number): boolean {
  const stride = requestStride(program);
  for (let r = 0; r < state.requestCount; r++)
    if (state.requests[r * stride + MOVE] === m && state.requests[r * stride + FATE] === PENDING) return true;
  return false;
}

/** Returns whether the input that fired the pattern has stayed held since the previous frame. */
function isHeldOn(state: State, pattern: number): boolean {
  const was = state.phaseWas[pattern];
  return state.phase[pattern] === SUSTAINED && (was === FIRED || was === SUSTAINED);
}

/** Adds a request for a move whose button is held, for this frame alone. */
function askAgain(program: Program, state: State, m: number): void {
  if (isPending(program, state, m)) return;
  const at = addRequest(program, state, m);
  state.requests[at + ANEW] = 1;
  state.requests[at + DUE] = state.frame;
  state.requests[at + DUE_TICKS] = state.requests[at + MADE_TICKS]!;
  if (isTaken(state, at)) state.requestCount--;
}

function makeRequests(program: Program, state: State, trace: Trace): void {
  for (let m = 0; m < program.moves.length; m++) {
    const move = program.moves[m]!;
    const fires = state.phase[move.pattern] === FIRED;
    const asksAgain = move.asksAgain && isHeldOn(state, move.pattern);
    if (!(fires || asksAgain) || move.isOff || !move.activeIn[state.mode]) continue;
    if (!isWanted(state, move)) continue;
    if (!fires) {
      askAgain(program, state, m);
      continue;
    }
    const at = addRequest(program, state, m);
    noteRequest(state, trace, at);
    becomeDue(program, state, at);
    if (isTaken(state, at)) state.requests[at + FATE] = lostFate("prompt");
    else if (!program.keepsAllRequests) replaceOlder(program, state, at);
  }
}

/** Returns whether any held pattern has a move that repeats its request. */
export function isAnyAskingAgain(program: Program, state: State): boolean {
  for (let k = 0; k < program.againMoves.length; k++) {
    const phase = state.phase[program.moves[program.againMoves[k]!]!.pattern];
    if (phase === FIRED || phase === SUSTAINED) return true;
  }
  return false;
}

function refill(program: Program, state: State): void {
  for (let k = 0; k < program.limitedMoves.length; k++) {
    const m = program.limitedMoves[k]!;
    const move = program.moves[m]!;
    if (isWhole(state, move.refillGate)) state.usesLeft[m] = move.usesMax;
  }
}

/** Returns whether this slot has performed a move on this frame. */
function isSlotTaken(state: State, slot: number): boolean {
  return state.slotFrame[slot] === state.frame && state.slotMove[slot]! >= 0;
}

/**
 * Returns the row of the best ready request in a free slot: highest priority, then newest, then first in the
 * kit; −1 if none.
 */
function chooseRequest(program: Program, state: State): number {
  const stride = requestStride(program);
  const pool = state.requests;
  let best = -1;
  for (let r = 0; r < state.requestCount; r++) {
    const at = r * stride;
    if (pool[at + FATE] !== PENDING) continue;
    const move = program.moves[pool[at + MOVE]!]!;
    if (isSlotTaken(state, move.slot) || !isReady(program, state, at)) continue;
    if (best >= 0) {
      const rival = program.moves[pool[best + MOVE]!]!;
      if (move.priority !== rival.priority) {
        if (move.priority < rival.priority) continue;
      } else if (pool[at + MADE] !== pool[best + MADE]) {
        if (pool[at + MADE]! < pool[best + MADE]!) continue;
      } else if (pool[at + MOVE]! >= pool[best + MOVE]!) continue;
    }
    best = at;
  }
  return best;
}

/**
 * Returns how a ready request is performed, as an index into PERFORMED_BY (bit 0: later than due, bit 1: by
 * coyote alone).
 */
function performedBy(program: Program, state: State, at: number): number {
  const move = program.moves[state.requests[at + MOVE]!]!;
  const isLate = state.frame > state.requests[at + DUE]!;
  let isForgiven = false;
  for (let k = 0; k < move.needs.length; k++) {
    if (judgeNeed(move, move.needs[k]!, state) === FORGIVEN) isForgiven = true;
  }
  return (isLate ? 1 : 0) + (isForgiven ? 2 : 0);
}

/**
 * Performs the request in row `at`: spending, cooldown, a use, the slot's timeline, and the loss of its
 * rivals.
 */
function perform(program: Program, state: State, at: number): void {
  const pool = state.requests;
  const m = pool[at + MOVE]!;
  const move = program.moves[m]!;
  pool[at + FATE] = DONE;
  for (let k = 0; k < move.spends.length; k++) {
    const gate = move.spends[k]!;
    if (program.gates[gate]!.spentForTicks === 0) continue;
    state.spentFrame[gate] = state.frame;
    state.spentTicks[gate] = state.gameTicks;
  }
  state.performedFrame[m] = state.frame;
  state.performedTicks[m] = moveNow(move, state);
  if (move.usesMax > 0) state.usesLeft[m] = state.usesLeft[m]! - 1;
  state.slotMove[move.slot] = m;
  state.slotOwner[move.slot] = m;
  state.slotFrame[move.slot] = state.frame;
  state.slotTicks[move.slot] = state.gameTicks;
  state.areGatesAtRest = false;
  const stride = requestStride(program);
  for (let r = 0; r < state.requestCount; r++) {
    const other = r * stride;
    if (pool[other + FATE] !== PENDING || program.moves[pool[other + MOVE]!]!.shares) continue;
    if (shareEdge(state, at, other)) pool[other + FATE] = lostFate("beaten", m);
  }
}

const isDone = (pool: State["requests"], at: number) => pool[at + FATE] === DONE;

/**
 * Performs ready requests; notes follow in kit order once all are decided. Until then a performed request's
 * DUE, no longer needed, holds −2 − how it was performed.
 */
function arbitrate(program: Program, state: State, trace: Trace): void {
  let performed = 0;
  for (let at = chooseRequest(program, state); at >= 0; at = chooseRequest(program, state)) {
    state.requests[at + DUE] = -2 - performedBy(program, state, at);
    perform(program, state, at);
    performed++;
  }
  if (performed === 0) return;
  for (const at of listInKitOrder(program, state, isDone)) {
    if (state.requests[at + ANEW] === 1) noteRequest(state, trace, at);
    note(trace, state.frame, PERFORMED, state.requests[at + MOVE]!);
    put(trace, state.requests[at + MADE]!);
    put(trace, -2 - state.requests[at + DUE]!);
  }
}

/**
 * Returns the reason for the loss of a request whose buffer runs out now: its slot was taken by another, or
 * it was too late.
 */
export function reasonOfLoss(program: Program, state: State, at: number): number {
  const obstacle = findObstacle(program, state, at);
  if (obstacle !== 0) return obstacle;
  const { slot } = program.moves[state.requests[at + MOVE]!]!;
  return isSlotTaken(state, slot) ? lostFate("busy", state.slotMove[slot]!) : lostFate("late");
}

/**
 * Step 8 of a frame. Uses refill; fires create requests (those whose edges a prompt took are lost, newer ones
 * replace older ones); ready requests are performed; the rest that can no longer be performed is lost.
 * Performed moves are noted first, then losses, each in kit order.
 */
export function stepMoves(program: Program, state: State, trace: Trace): void {
  refill(program, state);
  const mayAsk = state.hasFires || isAnyAskingAgain(program, state);
  if (!mayAsk && state.requestCount === 0) return;
  const stride = requestStride(program);
  for (let r = 0; r < state.requestCount; r++) {
    becomeDue(program, state, r * stride);
    if (state.takenCount > 0 && isTaken(state, r * stride))
      state.requests[r * stride + FATE] = lostFate("prompt");
  }
  if (mayAsk) makeRequests(program, state, trace);
  if (state.requestCount === 0) return;
  arbitrate(program, state, trace);
  for (let r = 0; r < state.requestCount; r++) {
    const at = r * stride;
    if (state.requests[at + FATE] !== PENDING) continue;
    if (state.requests[at + ANEW] === 0 && !isOver(program, state, at)) continue;
    state.requests[at + FATE] = reasonOfLoss(program, state, at);
  }
  clearRequests(program, state, trace);
}
