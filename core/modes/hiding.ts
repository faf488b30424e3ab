import type { Program } from "../run/program";
import { OPEN, type State } from "../run/state";
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

/** Is pattern `p` active, with this control among its own? Then hiding the control ends its attempt. */
function isAtWork(program: Program, state: State, p: number, control: number): boolean {
  const pattern = program.patterns[p]!;
  return pattern.activeIn[state.mode] === true && pattern.controls.includes(control);
}

/**
 * Brings the veils up to date before the patterns look: a hidden control is veiled, and stays so after the
 * hiding until it has been let go. A pattern that saw one of its own controls down when the veil fell starts over.
 * One just made active by a mode that carries is hidden what the new mode hides, whatever was captured in the old.
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
          // Let go on the very frame of hiding: that is seen, and the veil falls on the next.
          state.lingering++;
          continue;
        }
        state.veiled[at] = 1;
        state.awake[p] = 1;
        if (state.was[c] === 1 && isAtWork(program, state, p, c)) state.startsOver[p] = 1;
      } else if (state.veiled[at] === 1) {
        if (state.was[c] === 0) state.veiled[at] = 0;
        else state.lingering++;
      }
    }
  }
}

/** Who keeps a control from a pattern: the capturing pattern, or after all patterns the open prompt; −1 for no one. */
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

/** Notes every press that is kept from a rule which would have heard it, and by whom. */
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
