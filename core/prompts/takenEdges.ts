import { recordOf } from "../patterns/recordOf";
import type { Program } from "../program/program";
import { FIRED, growPool, REQUEST_HEAD, SUSTAINED, type State } from "../program/state";
import { EDGE_COUNT, requestStride } from "../moves/requests";

/** Returns whether the edge is still down or, for a stick, could be repeated by a carried press. */
function isOfPresentPress(program: Program, state: State, key: number): boolean {
  const source = key % program.sourceCount;
  const frame = Math.floor(key / program.sourceCount);
  if (source < program.controls.length) return frame >= state.pressFrame[source]!;
  if (!program.carries) return false;
  const { up, down, left, right } = program.sticks[source - program.controls.length]!;
  return [up, down, left, right].some(c => state.down[c] === 1 && frame >= state.pressFrame[c]!);
}

function isOfPattern(program: Program, state: State, key: number): boolean {
  return program.patterns.some(
    pattern => recordOf(pattern.kind).stepper.remembers?.(program, pattern, state, key) ?? false,
  );
}

function isInFire(program: Program, state: State, pattern: number, key: number): boolean {
  const from = pattern * program.edgeRoom;
  return state.fireEdges.subarray(from, from + state.fireEdgeCount[pattern]!).includes(key);
}

/**
 * Returns whether the edge is part of a fire of this frame, whose requests are created after the prompts are
 * judged. The pattern has already discarded the presses of a finished chain, sequence or mash.
 */
function isOfPresentFire(program: Program, state: State, key: number): boolean {
  if (!state.hasFires) return false;
  for (let p = 0; p < program.patterns.length; p++)
    if (state.phase[p] === FIRED && isInFire(program, state, p, key)) return true;
  return false;
}

/** Returns whether a move that repeats its request could use the edge. */
function isOfHeldFire(program: Program, state: State, key: number): boolean {
  for (const m of program.againMoves) {
    const p = program.moves[m]!.pattern;
    if (state.phase[p] === SUSTAINED && isInFire(program, state, p, key)) return true;
  }
  return false;
}

function isOfRequest(program: Program, state: State, key: number): boolean {
  const stride = requestStride(program);
  for (let r = 0; r < state.requestCount; r++) {
    const from = r * stride + REQUEST_HEAD;
    if (state.requests.subarray(from, from + state.requests[r * stride + EDGE_COUNT]!).includes(key))
      return true;
  }
  return false;
}

/**
 * Drops the taken edges that no pending request and no current or later fire can contain, to keep the list
 * short.
 */
function forgetSpent(program: Program, state: State): void {
  let kept = 0;
  for (let t = 0; t < state.takenCount; t++) {
    const key = state.taken[t]!;
    const isWanted =
      isOfPresentPress(program, state, key) ||
      isOfPattern(program, state, key) ||
      isOfPresentFire(program, state, key) ||
      isOfHeldFire(program, state, key) ||
      isOfRequest(program, state, key);
    if (isWanted) state.taken[kept++] = key;
  }
  state.takenCount = kept;
}

/**
 * Marks the edges of an answer (the current fire of `pattern`) as taken for good. Source: frame rules,
 * section 8.
 */
export function takeEdges(program: Program, state: State, pattern: number): void {
  forgetSpent(program, state);
  const count = state.fireEdgeCount[pattern]!;
  state.taken = growPool(state.taken, state.takenCount + count);
  for (let k = 0; k < count; k++)
    state.taken[state.takenCount++] = state.fireEdges[pattern * program.edgeRoom + k]!;
}
