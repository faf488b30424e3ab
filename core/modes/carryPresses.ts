import type { Program } from "../program/program";
import type { State } from "../program/state";
import { stepPattern } from "../patterns/stepPattern";
import type { Trace } from "../trace/trace";

/** Numbers per line of either log. */
const ENTRY = 3;

/** The number of log lines from which on the log is pruned. */
const LOG_LINES = 64;

/** Returns the first frame of the oldest press still down; the current frame if nothing is down. */
function oldestPress(program: Program, state: State): number {
  let oldest = state.frame;
  for (let c = 0; c < program.controls.length; c++) {
    if (state.down[c] === 1 || state.was[c] === 1) oldest = Math.min(oldest, state.pressFrame[c]!);
  }
  return oldest;
}

/**
 * Prunes lines that no press still down reaches back to: of a kind's lines at or before that frame only the
 * last is kept. Runs only when the log has doubled, so that a press held for an hour costs no more per frame
 * than a short one.
 */
function forget(log: number[], oldest: number, kindOf: (at: number) => number): void {
  const lines = log.length / ENTRY;
  if (lines < LOG_LINES || (lines & (lines - 1)) !== 0) return;
  const firstOf = new Map<number, number>();
  for (let at = 0; at < log.length && log[at]! <= oldest; at += ENTRY) firstOf.set(kindOf(at), at);
  let kept = 0;
  for (let at = 0; at < log.length; at += ENTRY) {
    if (at < (firstOf.get(kindOf(at)) ?? 0)) continue;
    log.copyWithin(kept, at, at + ENTRY);
    kept += ENTRY;
  }
  log.length = kept;
}

/** Logs the game clock and mirroring, which carrying needs; adds a line only when one changes. */
export function logForCarrying(program: Program, state: State): void {
  const log = state.speedLog;
  const last = log.length - ENTRY;
  if (last < 0 || log[last + 2] !== state.speedPercent) {
    log.push(state.frame, state.gameTicks, state.speedPercent);
    forget(log, oldestPress(program, state), () => 0);
  }
  for (const stick of program.sticks) {
    const gate = stick.mirrorGate;
    if (gate < 0 || state.gateOpen[gate] === state.gateWas[gate]) continue;
    const turns = state.mirrorLog;
    turns.push(state.frame, gate, state.gateOpen[gate]!);
    forget(turns, oldestPress(program, state), at => turns[at + 1]!);
  }
}

/** Returns the game clock at a past frame, in ticks. */
function ticksAt(state: State, frame: number): number {
  const log = state.speedLog;
  for (let at = log.length - ENTRY; at >= 0; at -= ENTRY) {
    if (log[at]! <= frame) return log[at + 1]! + (frame - log[at]!) * log[at + 2]!;
  }
  return 0;
}

function wasGateOpen(state: State, gate: number, frame: number): number {
  const log = state.mirrorLog;
  for (let at = log.length - ENTRY; at >= 0; at -= ENTRY) {
    if (log[at + 1] === gate && log[at]! <= frame) return log[at + 2]!;
  }
  return 0;
}

/**
 * Replays the presses still down for pattern `i`, which a mode that carries has just activated: steps the
 * frames since their start for it alone, with only those presses and without notes. Restores controls, clock
 * and gates afterwards.
 */
export function carryPresses(program: Program, state: State, trace: Trace, i: number): void {
  state.arrives[i] = 0;
  const controls = program.controls.length;
  const down = state.down.slice();
  const was = state.was.slice();
  const gates = state.gateOpen.slice();
  const { frame, gameTicks } = state;
  const carried = (c: number) => was[c] === 1 && state.veiled[i * controls + c] === 0;
  let from = frame;
  for (let c = 0; c < controls; c++) {
    if (carried(c)) from = Math.min(from, state.pressFrame[c]!);
  }
  const wasMuted = trace.isMuted;
  trace.isMuted = true;
  state.down.fill(0);
  for (let f = from; f < frame; f++) {
    state.was.set(state.down);
    state.frame = f;
    state.gameTicks = ticksAt(state, f);
    for (let c = 0; c < controls; c++) state.down[c] = carried(c) && state.pressFrame[c]! <= f ? 1 : 0;
    for (const stick of program.sticks) {
      if (stick.mirrorGate >= 0) state.gateOpen[stick.mirrorGate] = wasGateOpen(state, stick.mirrorGate, f);
    }
    stepPattern(program, state, trace, i, state.phase[i]!);
  }
  trace.isMuted = wasMuted;
  state.down.set(down);
  state.was.set(was);
  state.gateOpen.set(gates);
  state.frame = frame;
  state.gameTicks = gameTicks;
}
