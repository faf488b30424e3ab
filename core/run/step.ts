import { stepGates } from "../gates/stepGates";
import type { FrameInput } from "../input/frameInput";
import { stepControls } from "../input/stepControls";
import { logForCarrying } from "../modes/carryPresses";
import { stepHiding } from "../modes/hiding";
import { stepModes } from "../modes/stepModes";
import { stepMoves } from "../moves/stepMoves";
import { stepPatterns } from "../patterns/stepPatterns";
import { judgePrompts } from "../prompts/judgePrompts";
import { stepPrompts } from "../prompts/stepPrompts";
import type { Trace } from "../trace/trace";
import type { Program } from "./program";
import type { State } from "./state";

/**
 * One frame, the next after `state.frame`. Changes only `state` and `trace`. The order within a frame:
 * clocks; controls (values, cleaning, edges); gates (painted, by stage, timelines and prompts, then derived);
 * mode; prompts (run out, shown, opened); patterns in kit order; prompts judged; requests, moves, losses.
 * Allocates nothing on a frame on which nothing happens. Source: frame rules, section 3.
 */
export function step(program: Program, state: State, input: FrameInput, trace: Trace): void {
  state.frame++;
  state.hasFires = false;
  state.speedPercent = input.speedPercent;
  if (state.frame > 0) state.gameTicks += input.speedPercent;
  stepControls(program, state, input, trace);
  stepGates(program, state, input, trace);
  if (program.carries) logForCarrying(program, state);
  stepModes(program, state, trace);
  if (program.prompts.length > 0) stepPrompts(program, state, trace);
  if (program.hides) stepHiding(program, state);
  stepPatterns(program, state, trace);
  if (program.prompts.length > 0) judgePrompts(program, state, trace);
  if (program.moves.length > 0) stepMoves(program, state, trace);
  trace.frames = state.frame + 1;
}
