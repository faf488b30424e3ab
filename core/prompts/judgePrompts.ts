import type { Program, PromptProgram } from "../program/program";
import { FIRED, HIDDEN, LEADING, OPEN, type State } from "../program/state";
import { GRADED, OK, type Trace } from "../trace/trace";
import { endShowing, failPrompt, notePrompt, openedTicks, promptClock } from "./promptState";
import { takeEdges } from "./takenEdges";

/** Returns whether all edges of the pattern's fire are on or after a frame. */
function areEdgesFrom(program: Program, state: State, pattern: number, frame: number): boolean {
  const base = pattern * program.edgeRoom;
  for (let k = 0; k < state.fireEdgeCount[pattern]!; k++) {
    if (Math.floor(state.fireEdges[base + k]! / program.sourceCount) < frame) return false;
  }
  return true;
}

/** Returns the first pattern in kit order whose fire on this frame answers the prompt, or −1. */
function findAnswer(program: Program, prompt: PromptProgram, state: State, p: number): number {
  const from = prompt.early === "allow" ? state.shownFrame[p]! : state.openFrame[p]!;
  for (let k = 0; k < prompt.ask.length; k++) {
    const pattern = prompt.ask[k]!;
    if (state.phase[pattern] === FIRED && areEdgesFrom(program, state, pattern, from)) return pattern;
  }
  return -1;
}

function isAnyEdge(state: State, controls: readonly number[]): boolean {
  for (let k = 0; k < controls.length; k++) {
    if (state.down[controls[k]!] === 1 && state.pressFrame[controls[k]!] === state.frame) return true;
  }
  return false;
}

/**
 * Returns the first grade that covers the answer's distance from the target, on either side; otherwise plain
 * ok.
 */
function gradeOf(prompt: PromptProgram, offTicks: number): number {
  for (let g = 0; g < prompt.grades.length; g++)
    if (offTicks <= prompt.grades[g]!.withinTicks) return GRADED + g;
  return OK;
}

/**
 * Step 7 of a frame: judges answers, wrong presses and early presses. An answer takes precedence over a wrong
 * press.
 */
export function judgePrompts(program: Program, state: State, trace: Trace): void {
  for (let p = 0; p < program.prompts.length; p++) {
    const stage = state.promptStage[p]!;
    if (stage === HIDDEN) continue;
    const prompt = program.prompts[p]!;
    if (stage === LEADING) {
      if (isAnyEdge(state, prompt.earlyControls)) failPrompt(program, state, trace, p, "too-early");
      continue;
    }
    const answer = stage === OPEN ? findAnswer(program, prompt, state, p) : -1;
    if (answer >= 0) {
      const offTicks = Math.abs(
        promptClock(prompt, state) - openedTicks(prompt, state, p) - prompt.targetTicks,
      );
      endShowing(program, state, p, true);
      notePrompt(state, trace, p, gradeOf(prompt, offTicks), answer);
      takeEdges(program, state, answer);
    } else if (isAnyEdge(state, prompt.wrongControls)) failPrompt(program, state, trace, p, "wrong");
  }
}
