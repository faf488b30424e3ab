import type { Program } from "../program/program";
import { AWAKE, OPEN, type State } from "../program/state";
import { KEPT, note, put, type Trace } from "../trace/trace";

/** Marks, for every pattern, the controls that captures and open prompts hide from it now. */
function findHidden(program: Program, state: State): void {
  const controls = program.controls.length;
  state.hidden.fill(0);
  for (let q = 0; q < program.patterns.length; q++) {
    const capturer = program.patterns[q]!;
    if (!capturer.captures || capturer.isOff || !capturer.activeIn[state.mode]) continue;
    for (let p = 0; p < program.patterns.length; p++) {
      if (program.patterns[p]!.captures) continue;
      for (const control of capturer.controls) state.hidden[p * controls + control] = 1;
    }
  }
  for (let r = 0; r < program.prompts.length; r++) {
    const prompt = program.prompts[r]!;
    if (state.promptStage[r] !== OPEN || prompt.captures.length === 0) continue;
    for (let p = 0; p < program.patterns.length; p++) {
      if (prompt.ask.includes(p)) continue;
      for (const control of prompt.captures) state.hidden[p * controls + control] = 1;
    }
  }
}

/** Returns whether pattern `p` is active and uses this control; hiding the control then ends its attempt. */
function isAtWork(program: Program, state: State, p: number, control: number): boolean {
  const pattern = program.patterns[p]!;
  return pattern.activeIn[state.mode] === true && pattern.controls.includes(control);
}

/**
 * Updates the veils before the patterns are stepped. A hidden control is veiled and stays veiled after the
 * hiding until it is released. A pattern that saw one of its controls down when the veil fell restarts. A
 * pattern just activated by a mode that carries is hidden what the new mode hides, regardless of captures in
 * the old mode.
 */
export function stepHiding(program: Program, state: State): void {
  if (!state.isHiddenStale && state.lingering === 0) return;
  if (state.isHiddenStale) findHidden(program, state);
  state.isHiddenStale = false;
  const controls = program.controls.length;
  state.lingering = 0;
  for (let p = 0; p < program.patterns.length; p++) {
    for (let c = 0; c < controls; c++) {
      const at = p * controls + c;
      if (state.arrives[p] === 1) {
        state.veiled[at] = state.hidden[at]!;
        continue;
      }
      if (state.hidden[at] === 1) {
        if (state.veiled[at] === 1) continue;
        if (state.was[c] === 1 && state.down[c] === 0) {
          // A release on the very frame of hiding is visible; the veil falls on the next frame.
          state.lingering++;
          continue;
        }
        state.veiled[at] = 1;
        state.awake[p] = AWAKE;
        if (state.was[c] === 1 && isAtWork(program, state, p, c)) state.startsOver[p] = 1;
      } else if (state.veiled[at] === 1) {
        if (state.was[c] === 0) state.veiled[at] = 0;
        else state.lingering++;
      }
    }
  }
}

/**
 * Returns what hides a control from a pattern: the capturing pattern, or the number of patterns for the open
 * prompt; −1 if nothing does.
 */
function keeperOf(program: Program, state: State, p: number, control: number): number {
  const patterns = program.patterns;
  const keeper = patterns.findIndex(
    other =>
      other.captures &&
      !other.isOff &&
      other.activeIn[state.mode] === true &&
      other.controls.includes(control),
  );
  if (keeper >= 0 && !patterns[p]!.captures) return keeper;
  const prompt = program.prompts.findIndex(
    (other, r) => state.promptStage[r] === OPEN && other.captures.includes(control) && !other.ask.includes(p),
  );
  return prompt < 0 ? -1 : patterns.length + prompt;
}

/** Notes every press hidden from a pattern that would have seen it, and what hides it. */
export function noteKept(program: Program, state: State, trace: Trace): void {
  const controls = program.controls.length;
  for (let c = 0; c < controls; c++) {
    if (state.down[c] === 0 || state.pressFrame[c] !== state.frame) continue;
    const deaf = program.watchers[c]!.find(
      p =>
        state.hidden[p * controls + c] === 1 &&
        program.patterns[p]!.activeIn[state.mode] === true &&
        program.patterns[p]!.controls.includes(c),
    );
    const keeper = deaf === undefined ? -1 : keeperOf(program, state, deaf, c);
    if (keeper < 0) continue;
    const isPrompt = keeper >= program.patterns.length;
    note(trace, state.frame, KEPT, c);
    put(trace, isPrompt ? keeper - program.patterns.length : keeper);
    put(trace, isPrompt ? 1 : 0);
  }
}
