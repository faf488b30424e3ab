import { momentOn } from "../program/moments";
import type { MoveProgram, NeedProgram, Program } from "../program/program";
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
  const last = momentOn(move.isReal, state.gateLastFrame[gate]!, state.gateLastTicks[gate]!);
  return moveNow(move, state) - last <= need.coyoteTicks ? FORGIVEN : UNMET;
}

/** Returns whether a move is still cooling down from its last performance. */
function isCooling(move: MoveProgram, state: State, m: number): boolean {
  if (state.performedFrame[m]! < 0 || move.cooldownTicks === 0) return false;
  const since = momentOn(move.isReal, state.performedFrame[m]!, state.performedTicks[m]!);
  return moveNow(move, state) - since < move.cooldownTicks;
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
