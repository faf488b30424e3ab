import { recordOf } from "../patterns/recordOf";
import type { Program } from "../run/program";
import { FIRED, growPool, REQUEST_HEAD, SUSTAINED, type State } from "../run/state";
import { EDGE_COUNT, requestStride } from "../moves/requests";

/** Is the edge one of those still down, or, of a stick, one that a carried press could make again? */
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

/** Could a move that asks again ask with it? */
function isOfHeldFire(program: Program, state: State, key: number): boolean {
  for (const m of program.againMoves) {
    const p = program.moves[m]!.pattern;
    if (state.phase[p] !== FIRED && state.phase[p] !== SUSTAINED) continue;
    const from = p * program.edgeRoom;
    if (state.fireEdges.subarray(from, from + state.fireEdgeCount[p]!).includes(key)) return true;
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

/** Forgets the taken edges that nothing now pending or remembered, and no later fire, can have: the list stays short however long it is played. */
function forgetSpent(program: Program, state: State): void {
  let kept = 0;
  for (let t = 0; t < state.takenCount; t++) {
    const key = state.taken[t]!;
    const isWanted =
      isOfPresentPress(program, state, key) ||
      isOfPattern(program, state, key) ||
      isOfHeldFire(program, state, key) ||
      isOfRequest(program, state, key);
    if (isWanted) state.taken[kept++] = key;
  }
  state.takenCount = kept;
}

/** The edges of an answer, the present fire of `pattern`, are taken for good. Source: frame rules, section 8. */
export function takeEdges(program: Program, state: State, pattern: number): void {
  forgetSpent(program, state);
  const count = state.fireEdgeCount[pattern]!;
  state.taken = growPool(state.taken, state.takenCount + count);
  for (let k = 0; k < count; k++)
    state.taken[state.takenCount++] = state.fireEdges[pattern * program.edgeRoom + k]!;
}
