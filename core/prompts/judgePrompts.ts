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

/**
 * Returns the first pattern in kit order whose fire on this frame answers the prompt, or −1. A prompt that draws takes
 * the drawn pattern alone, or with `isOther` one of the others.
 */
function findAnswer(
  program: Program,
  prompt: PromptProgram,
  state: State,
  p: number,
  isOther: boolean,
): number {
  const from = prompt.early === "allow" ? state.shownFrame[p]! : state.openFrame[p]!;
  const drawn = state.drawn[p]! < 0 ? -1 : prompt.drawFrom[state.drawn[p]!]!;
  for (let k = 0; k < prompt.ask.length; k++) {
    const pattern = prompt.ask[k]!;
    if (prompt.draw >= 0 && (pattern === drawn) === isOther) continue;
    if (state.phase[pattern] === FIRED && areEdgesFrom(program, state, pattern, from)) return pattern;
  }
  return -1;
}

/** Returns the controls whose early press fails the present showing. */
function earlyControls(prompt: PromptProgram, state: State, p: number): readonly number[] {
  return state.drawn[p]! < 0 ? prompt.earlyControls : (prompt.earlyControlsOf[state.drawn[p]!] ?? []);
}

/** Returns whether a wrong control is pressed on this frame, or a pattern fires that was not drawn. */
function isWrong(program: Program, prompt: PromptProgram, state: State, p: number): boolean {
  if (isAnyEdge(state, prompt.wrongControls)) return true;
  return prompt.failsWrong && prompt.draw >= 0 && findAnswer(program, prompt, state, p, true) >= 0;
}

function isAnyEdge(state: State, controls: readonly number[]): boolean {
  for (let k = 0; k < controls.length; k++) {
    if (state.down[controls[k]!] === 1 && state.pressFrame[controls[k]!] === state.frame) return true;
  }
  return false;
}

/**
 * Returns the first grade that covers the answer's distance from the target, negative before it; otherwise plain ok.
 */
function gradeOf(prompt: PromptProgram, offTicks: number): number {
  for (let g = 0; g < prompt.grades.length; g++) {
    const { earlyTicks, lateTicks } = prompt.grades[g]!;
    if (offTicks >= -earlyTicks && offTicks <= lateTicks) return GRADED + g;
  }
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
      if (isAnyEdge(state, earlyControls(prompt, state, p)))
        failPrompt(program, state, trace, p, "too-early");
      continue;
    }
    const answer = stage === OPEN ? findAnswer(program, prompt, state, p, false) : -1;
    if (answer >= 0) {
      const offTicks = promptClock(prompt, state) - openedTicks(prompt, state, p) - prompt.targetTicks;
      endShowing(program, state, p, true);
      notePrompt(state, trace, p, gradeOf(prompt, offTicks), answer);
      takeEdges(program, state, answer);
    } else if (isWrong(program, prompt, state, p)) failPrompt(program, state, trace, p, "wrong");
  }
}
