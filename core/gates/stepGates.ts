import { TICKS } from "../time/clock";
import { momentOn, nowOn } from "../program/moments";
import type { GateProgram, MoveProgram, Program } from "../program/program";
import { areGatesDue, wakeTime } from "../program/sleep";
import { FIRED, OPEN, SUSTAINED, type State } from "../program/state";
import { GATE, note, IMPLIED, put, TRAIL, type Trace } from "../trace/trace";
import type { FrameInput } from "../input/frameInput";

/** Returns the length of a move's timeline, in ticks. */
export function timelineTicks(move: MoveProgram): number {
  return move.startupTicks + move.activeTicks + move.recoveryTicks;
}

/** Returns the age of the timeline of a slot's move, on the move's clock, in ticks. */
export function ageOfTimeline(move: MoveProgram, state: State, slot: number): number {
  return nowOn(move.isReal, state) - momentOn(move.isReal, state.slotFrame[slot]!, state.slotTicks[slot]!);
}

/** Opens the gates that a slot's running move opens on this frame, and the slot's busy gate. */
function openByTimeline(program: Program, state: State, slot: number): void {
  const move = program.moves[state.slotMove[slot]!]!;
  const age = ageOfTimeline(move, state, slot);
  const isFirst = state.frame - 1 === state.slotFrame[slot];
  const ageBefore = age - (move.isReal ? TICKS : state.speedPercent);
  for (let k = 0; k < move.opens.length; k++) {
    const opening = move.opens[k]!;
    if (age < opening.fromTicks) continue;
    if (age <= opening.toTicks || isFirst || ageBefore < opening.fromTicks) state.gateOpen[opening.gate] = 1;
  }
  if (age < timelineTicks(move)) state.gateOpen[program.slots[slot]!.busyGate] = 1;
}

/**
 * Counts the events of the previous frame. The count is 0 while the gate's `until` is open. Source: frame
 * rules, section 5.
 */
function isCountReached(gate: GateProgram, state: State, g: number): boolean {
  const of = gate.of[0]!;
  const isCounted =
    gate.derive === "fires"
      ? state.phase[of] === FIRED
      : state.frame > 0 && state.performedFrame[of] === state.frame - 1;
  if (isCounted) state.gateCount[g] = state.gateCount[g]! + 1;
  if (gate.until >= 0 && state.gateOpen[gate.until] === 1) state.gateCount[g] = 0;
  return state.gateCount[g]! >= gate.atLeast;
}

/**
 * Opens the gates of moves whose output is on: from the frame after a performance while the input holds, then for the
 * move's linger. Source: frame rules, section 6, Output.
 */
function openByOutput(program: Program, state: State): void {
  for (let k = 0; k < program.outputMoves.length; k++) {
    const m = program.outputMoves[k]!;
    const move = program.moves[m]!;
    if (state.performedFrame[m]! < 0) continue;
    if (state.outputFrame[m]! <= state.performedFrame[m]!) {
      const phase = state.phase[move.pattern];
      if (phase === FIRED || phase === SUSTAINED) {
        state.gateOpen[move.outputGate] = 1;
        continue;
      }
      state.outputFrame[m] = state.frame;
      state.outputTicks[m] = state.gameTicks;
    }
    const since = momentOn(move.isReal, state.outputFrame[m]!, state.outputTicks[m]!);
    if (nowOn(move.isReal, state) - since < move.lingerTicks) state.gateOpen[move.outputGate] = 1;
  }
}

/** Keeps a gate with a linger open after its last source. Source: frame rules, section 5. */
function linger(gate: GateProgram, state: State, g: number): void {
  const isSourced = state.gateOpen[g]!;
  // A source that closes was last open on the frame before, also after frames on which gates were skipped.
  if (isSourced === 0 && state.gateSourced[g] === 1)
    state.sourcedTicks[g] = state.gameTicks - state.speedPercent;
  state.gateSourced[g] = isSourced;
  if (isSourced === 1 || state.sourcedTicks[g]! < 0) return;
  if (state.gameTicks - state.sourcedTicks[g]! <= gate.lingerTicks) state.gateOpen[g] = 1;
  else state.sourcedTicks[g] = -1;
}

function isDerivedOpen(gate: GateProgram, state: State, g: number): boolean {
  const of = gate.of;
  switch (gate.derive) {
    case "plain":
      return false;
    case "while":
      return state.phase[of[0]!] === FIRED || state.phase[of[0]!] === SUSTAINED;
    case "fires":
    case "performs":
      return isCountReached(gate, state, g);
    case "all":
      for (let k = 0; k < of.length; k++) if (state.gateOpen[of[k]!] === 0) return false;
      return true;
    case "any":
      for (let k = 0; k < of.length; k++) if (state.gateOpen[of[k]!] === 1) return true;
      return false;
    case "none":
      for (let k = 0; k < of.length; k++) if (state.gateOpen[of[k]!] === 1) return false;
      return true;
  }
}

/** Notes, for the tape, when a closed gate starts or stops being forgiven by its longest coyote. */
function noteTrail(program: Program, state: State, g: number, trace: Trace): void {
  const { trailGameTicks, trailRealTicks } = program.gates[g]!;
  if (trailGameTicks < 0 && trailRealTicks < 0) return;
  let isForgiven = false;
  if (state.gateOpen[g] === 0 && state.spentFrame[g]! < 0 && state.gateLastFrame[g]! >= 0) {
    const real = (state.frame - state.gateLastFrame[g]!) * TICKS;
    isForgiven = state.gameTicks - state.gateLastTicks[g]! <= trailGameTicks || real <= trailRealTicks;
  }
  if ((state.gateTrails[g] === 1) === isForgiven) return;
  state.gateTrails[g] = isForgiven ? 1 : 0;
  note(trace, state.frame, TRAIL, g);
  put(trace, state.gateTrails[g]!);
}

/**
 * Follows spending. A spent gate becomes whole when it was closed on a later frame (its coyote then starts
 * empty) or when its time is over. A gate that closes unspent was last open on the previous frame; its coyote
 * counts from there.
 */
function followSpending(program: Program, state: State, g: number): void {
  const isOpen = state.gateOpen[g] === 1;
  if (state.spentFrame[g]! >= 0) {
    if (!isOpen) {
      state.spentFrame[g] = -1;
      state.gateLastFrame[g] = -1;
    } else if (state.gameTicks - state.spentTicks[g]! >= program.gates[g]!.spentForTicks) {
      state.spentFrame[g] = -1;
    }
  } else if (!isOpen && state.gateWas[g] === 1) {
    state.gateLastFrame[g] = state.frame - 1;
    state.gateLastTicks[g] = state.gameTicks - state.speedPercent;
  }
}

/** Ends a slot's timeline when it is complete and none of its openings can follow. */
function endTimeline(program: Program, state: State, slot: number): void {
  const move = program.moves[state.slotMove[slot]!]!;
  const age = ageOfTimeline(move, state, slot);
  if (age < timelineTicks(move)) return;
  for (let k = 0; k < move.opens.length; k++) {
    if (age < move.opens[k]!.fromTicks || age <= move.opens[k]!.toTicks) return;
  }
  state.slotMove[slot] = -1;
}

/** Sees to it that gates are skipped no further than to a time on one of the two clocks, in ticks. */
function wakeGates(state: State, isReal: boolean, ticks: number): void {
  if (isReal) state.gatesWakeReal = Math.min(state.gatesWakeReal, wakeTime(ticks));
  else state.gatesWakeGame = Math.min(state.gatesWakeGame, wakeTime(ticks));
}

/** Sees to it that gates are skipped no further than to the end of what now forgives a gate that has closed. */
function wakeAfterTrail({ trailGameTicks, trailRealTicks }: GateProgram, state: State, g: number): void {
  const gameTicks = state.gateLastTicks[g]! + trailGameTicks;
  if (gameTicks >= state.gameTicks) wakeGates(state, false, gameTicks);
  const realTicks = state.gateLastFrame[g]! * TICKS + trailRealTicks;
  if (realTicks >= state.frame * TICKS) wakeGates(state, true, realTicks);
}

/**
 * Sees to it that gates are skipped no further than to the next time at which the timeline in a slot enters a part, opens a gate or
 * closes one. Returns whether they can be skipped: a gate that opens for this frame alone must be closed on the next one, and a
 * timeline that ends on this frame may have held a gate open on it.
 */
function wakeForTimeline(program: Program, state: State, slot: number): boolean {
  const move = program.moves[state.slotMove[slot]!]!;
  const age = ageOfTimeline(move, state, slot);
  const ageBefore = age - (move.isReal ? TICKS : state.speedPercent);
  let next = Infinity;
  const active = move.startupTicks + move.activeTicks;
  for (const end of [move.startupTicks, active, timelineTicks(move)])
    if (age < end) next = Math.min(next, end);
  for (const { fromTicks, toTicks } of move.opens) {
    const turn = age < fromTicks ? fromTicks : toTicks;
    if (age <= turn) next = Math.min(next, turn);
    else if (ageBefore <= Math.max(fromTicks, toTicks)) return false;
  }
  if (next === Infinity) return false;
  wakeGates(state, move.isReal, nowOn(move.isReal, state) - age + next);
  return true;
}

/**
 * Returns whether gates can be skipped from the next frame on, and until when: none has just changed, and the ends of
 * spending, of a coyote and of a linger, and timelines are the only changes by time.
 */
function findRest(program: Program, state: State): boolean {
  state.gatesWakeGame = Infinity;
  state.gatesWakeReal = Infinity;
  for (let g = 0; g < program.gates.length; g++) {
    if (state.gateOpen[g] !== state.gateWas[g]) return false;
    const gate = program.gates[g]!;
    if (state.spentFrame[g]! >= 0) wakeGates(state, false, state.spentTicks[g]! + gate.spentForTicks);
    if (state.gateTrails[g] === 1) wakeAfterTrail(gate, state, g);
    if (gate.lingerTicks >= 0 && state.gateOpen[g] !== state.gateSourced[g])
      wakeGates(state, false, state.sourcedTicks[g]! + gate.lingerTicks);
  }
  for (const m of program.outputMoves) if (state.gateOpen[program.moves[m]!.outputGate] === 1) return false;
  for (let s = 0; s < program.slots.length; s++)
    if (state.slotMove[s]! >= 0 && !wakeForTimeline(program, state, s)) return false;
  return true;
}

/** Opens or closes a gate from the stage, effective on the next frame. `gate` is its index in the program. */
export function stageGate(state: State, gate: number, isOpen: boolean): void {
  state.staged[gate] = isOpen ? 1 : 0;
  state.areGatesAtRest = false;
  state.isQuiet = false;
}

/**
 * Step 3 of a frame: computes which gates are open. Sources, in order: painted input, the stage
 * (`state.staged`), a running move, a prompt whose window was open at the end of the previous frame, a move's
 * output; then derived gates in kit order, and how long a gate lingers. Notes each change of a listed gate, and updates spending and the last open
 * frame (for coyote). Does nothing while the gates are at rest, until their wake time.
 */
export function stepGates(program: Program, state: State, input: FrameInput, trace: Trace): void {
  const count = program.gates.length;
  if (count === 0 || (state.areGatesAtRest && input.gateChangeCount === 0 && !areGatesDue(state))) return;
  for (let k = 0; k < input.gateChangeCount; k++)
    state.painted[input.gateChanges[k]! >> 1] = input.gateChanges[k]! & 1;
  for (let g = 0; g < count; g++) {
    state.gateWas[g] = state.gateOpen[g]!;
    state.gateOpen[g] = state.painted[g]! | state.staged[g]!;
  }
  for (let s = 0; s < program.slots.length; s++)
    if (state.slotMove[s]! >= 0) openByTimeline(program, state, s);
  for (let p = 0; p < program.prompts.length; p++) {
    const gate = program.prompts[p]!.opensGate;
    if (gate >= 0 && state.promptStage[p] === OPEN) state.gateOpen[gate] = 1;
  }
  if (program.outputMoves.length > 0) openByOutput(program, state);
  for (let g = 0; g < count; g++) {
    const gate = program.gates[g]!;
    if (isDerivedOpen(gate, state, g)) state.gateOpen[g] = 1;
    if (gate.lingerTicks >= 0) linger(gate, state, g);
    if (state.gateOpen[g] !== state.gateWas[g] && gate.isNoted) {
      note(trace, state.frame, gate.isListed ? GATE : IMPLIED, g);
      put(trace, state.gateOpen[g]!);
    }
    followSpending(program, state, g);
    noteTrail(program, state, g, trace);
  }
  state.areGatesAtRest = findRest(program, state);
  for (let s = 0; s < program.slots.length; s++) if (state.slotMove[s]! >= 0) endTimeline(program, state, s);
}
