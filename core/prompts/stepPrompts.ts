import type { Program, PromptProgram } from "../program/program";
import { HIDDEN, LEADING, OPEN, type State } from "../program/state";
import { OPENED, SHOWN, type Trace } from "../trace/trace";
import { drawPlace } from "./drawPlace";
import { failPrompt, notePrompt, openedTicks, promptClock, shownTicks } from "./promptState";

/**
 * Returns whether this prompt is to be shown on this frame. A start by time occurs once, whether or not the
 * prompt is active then.
 */
function isCalled(prompt: PromptProgram, state: State, p: number): boolean {
  if (prompt.startsOnGate >= 0)
    return state.gateOpen[prompt.startsOnGate] === 1 && state.gateWas[prompt.startsOnGate] === 0;
  if (prompt.startsAfterPrompt >= 0) {
    const other = prompt.startsAfterPrompt;
    if (state.frame === 0 || state.outcomeFrame[other] !== state.frame - 1) return false;
    return (
      prompt.startsOn === "any" || (prompt.startsOn === "success") === (state.promptSucceeded[other] === 1)
    );
  }
  if (state.promptAtPassed[p] === 1 || promptClock(prompt, state) < prompt.startsAtTicks) return false;
  state.promptAtPassed[p] = 1;
  return true;
}

function show(prompt: PromptProgram, state: State, trace: Trace, p: number): void {
  state.promptStage[p] = LEADING;
  state.shownFrame[p] = state.frame;
  state.shownTicks[p] = state.gameTicks;
  const place =
    prompt.drawFrom.length === 0 ? -1 : drawPlace(prompt.draw, state.showings[p]!, prompt.drawFrom.length);
  state.drawn[p] = place;
  state.showings[p] = state.showings[p]! + 1;
  notePrompt(state, trace, p, SHOWN, place < 0 ? -1 : prompt.drawFrom[place]);
}

function open(program: Program, state: State, trace: Trace, p: number): void {
  state.promptStage[p] = OPEN;
  state.openFrame[p] = state.frame;
  state.openTicks[p] = state.gameTicks;
  if (program.prompts[p]!.captures.length > 0) state.isHiddenStale = true;
  notePrompt(state, trace, p, OPENED);
}

/** Step 5 of a frame: windows that end, prompts that are shown, then windows that open; each in kit order. */
export function stepPrompts(program: Program, state: State, trace: Trace): void {
  const prompts = program.prompts;
  for (let p = 0; p < prompts.length; p++) {
    if (state.promptStage[p] !== OPEN) continue;
    const prompt = prompts[p]!;
    if (promptClock(prompt, state) - openedTicks(prompt, state, p) > prompt.windowTicks) {
      failPrompt(program, state, trace, p, "too-late");
    }
  }
  for (let p = 0; p < prompts.length; p++) {
    const prompt = prompts[p]!;
    if (prompt.isOff) continue;
    const called = isCalled(prompt, state, p);
    if (called && state.promptStage[p] === HIDDEN && prompt.activeIn[state.mode])
      show(prompt, state, trace, p);
  }
  for (let p = 0; p < prompts.length; p++) {
    if (state.promptStage[p] !== LEADING) continue;
    const prompt = prompts[p]!;
    if (promptClock(prompt, state) - shownTicks(prompt, state, p) >= prompt.leadTicks)
      open(program, state, trace, p);
  }
}
