import { momentOn } from "../program/moments";
import type { MoveProgram, NeedProgram, Program } from "../program/program";
import { wakeAt } from "../program/sleep";
import type { State } from "../program/state";
import { DUE, DUE_TICKS, lostFate, MADE_TICKS, MOVE, memoryNow, moveNow } from "./requests";

/** The states of a need: not met, met by an open gate, or met only by its coyote. */
export const UNMET = 0;
export const MET = 1;
export const FORGIVEN = 2;

/** Returns whether a gate is open and not spent, as needs without coyote and the refill of uses require. */
export function isWhole(state: State, gate: number): boolean {
  return state.gateOpen[gate] === 1 && state.spentFrame[gate]! < 0;
}

/**
 * Returns the state of one need. A coyote of n allows up to n frames after the last frame on which the gate
 * was open and not spent.
 */
export function judgeNeed(move: MoveProgram, need: NeedProgram, state: State): number {
  const gate = need.gate;
  if (state.spentFrame[gate]! >= 0) return UNMET;
  if (state.gateOpen[gate] === 1) return MET;
  if (need.coyoteTicks < 0 || state.gateLastFrame[gate]! < 0) return UNMET;
  return moveNow(move, state) - lastOpen(move, gate, state) <= need.coyoteTicks ? FORGIVEN : UNMET;
}

/** Returns the time at which a gate was last open, on the move's clock, in ticks. */
function lastOpen(move: MoveProgram, gate: number, state: State): number {
  return momentOn(move.isReal, state.gateLastFrame[gate]!, state.gateLastTicks[gate]!);
}

/** Returns the time at which a move has cooled down from its last performance, on its clock, in ticks; 0 before the first one. */
function cooledAt(move: MoveProgram, state: State, m: number): number {
  if (state.performedFrame[m]! < 0) return 0;
  return momentOn(move.isReal, state.performedFrame[m]!, state.performedTicks[m]!) + move.cooldownTicks;
}

/** Returns whether a move is still cooling down from its last performance. */
function isCooling(move: MoveProgram, state: State, m: number): boolean {
  return move.cooldownTicks > 0 && moveNow(move, state) < cooledAt(move, state, m);
}

/** Returns the first obstacle of a request apart from time, as a fate; 0 if there is none. */
export function findObstacle(program: Program, state: State, at: number): number {
  return findObstacleOf(program, state, state.requests[at + MOVE]!);
}

/**
 * Returns the first thing that keeps a move from being performed on the frame of the state, as a fate: a gate that it needs, a
 * ban, its cooldown or its uses; 0 if there is none. `isTakenAsOpen`: gates, by index, that count as open for its needs.
 */
export function findObstacleOf(
  program: Program,
  state: State,
  m: number,
  isTakenAsOpen?: (gate: number) => boolean,
): number {
  const move = program.moves[m]!;
  for (let k = 0; k < move.needs.length; k++) {
    const { gate } = move.needs[k]!;
    if (judgeNeed(move, move.needs[k]!, state) === UNMET && !isTakenAsOpen?.(gate))
      return lostFate("gate", gate);
  }
  for (let k = 0; k < move.bans.length; k++) {
    if (state.gateOpen[move.bans[k]!] === 1) return lostFate("ban", move.bans[k]!);
  }
  if (isCooling(move, state, m)) return lostFate("cooldown");
  if (move.usesMax > 0 && state.usesLeft[m] === 0) return lostFate("uses");
  return 0;
}

/** Records the first frame on which a request's age reaches its defer. */
export function becomeDue(program: Program, state: State, at: number): void {
  if (state.requests[at + DUE]! >= 0) return;
  const move = program.moves[state.requests[at + MOVE]!]!;
  const now = memoryNow(move, state);
  if (now - state.requests[at + MADE_TICKS]! < move.deferTicks) return;
  state.requests[at + DUE] = state.frame;
  state.requests[at + DUE_TICKS] = now;
}

/** Returns whether a request is due, within its buffer and unobstructed. */
export function isReady(program: Program, state: State, at: number): boolean {
  if (state.requests[at + DUE]! < 0) return false;
  const move = program.moves[state.requests[at + MOVE]!]!;
  if (memoryNow(move, state) - state.requests[at + DUE_TICKS]! > move.bufferTicks) return false;
  return findObstacle(program, state, at) === 0;
}

/** Returns whether a request's buffer runs out at the end of this frame. */
export function isOver(program: Program, state: State, at: number): boolean {
  if (state.requests[at + DUE]! < 0) return false;
  const move = program.moves[state.requests[at + MOVE]!]!;
  return memoryNow(move, state) - state.requests[at + DUE_TICKS]! >= move.bufferTicks;
}

/**
 * Lowers the wake times of a quiet state to the next time at which time alone can change anything about a pending request: it
 * becomes due or runs out, a coyote of one of its needs ends, or its move has cooled down.
 */
export function wakeForRequest(program: Program, state: State, at: number): void {
  const pool = state.requests;
  const m = pool[at + MOVE]!;
  const move = program.moves[m]!;
  if (pool[at + DUE]! < 0) wakeAt(state, move.isMemoryReal, pool[at + MADE_TICKS]! + move.deferTicks);
  else wakeAt(state, move.isMemoryReal, pool[at + DUE_TICKS]! + move.bufferTicks);
  for (let k = 0; k < move.needs.length; k++) {
    const need = move.needs[k]!;
    if (judgeNeed(move, need, state) === FORGIVEN)
      wakeAt(state, move.isReal, lastOpen(move, need.gate, state) + need.coyoteTicks);
  }
  if (isCooling(move, state, m)) wakeAt(state, move.isReal, cooledAt(move, state, m));
}
