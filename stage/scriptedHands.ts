import { createFrameInput, createState, createTrace, step, type Kit, type Program, type Take } from "#core";
import { isSolid } from "./runner/level";
import type { RunnerProgram, RunnerState } from "./runner/runner";
import { createStage, reportStage, stepStage, type StageProgram } from "./stage";

/** What scripted hands see and do on one frame: which controls are down next, decided after the frame before. */
export type Routine = (
  frame: number,
  see: { readonly body: RunnerState | undefined; readonly program: StageProgram },
) => ReadonlySet<string>;

/** How far ahead of the feet an edge is looked for, in tiles. */
const AHEAD = 0.05;

/** Does the ground end right before the body, in the way it runs? */
function isAtEdge(program: RunnerProgram, body: RunnerState): boolean {
  const foot = body.x + body.facing * AHEAD;
  return body.isGrounded && !isSolid(program.level, foot, body.y - 0.1);
}

/**
 * Hands that run to the right and press a control at every edge, so many frames late (early where negative is not
 * possible: the edge is only seen when it is there), for so many frames.
 */
export function leapAtEdges(
  rightId: string,
  leapId: string,
  lateFrames: number,
  heldFrames: number,
): Routine {
  let pressAt = -1;
  return (frame, { body, program }) => {
    const held = new Set([rightId]);
    if (!body || program.kind !== "runner") return held;
    const isAir = !body.isGrounded && body.airFrames === 1 && body.vy <= 0;
    if (pressAt < 0 && (isAtEdge(program, body) || body.isAtWall || isAir)) pressAt = frame + lateFrames;
    if (pressAt >= 0 && frame >= pressAt) held.add(leapId);
    if (pressAt >= 0 && frame >= pressAt + heldFrames) pressAt = -1;
    return held;
  };
}

/** Lets scripted hands play a kit on its stage, and gives what they played as a take. Chance has no part in it. */
export function playRoutine(
  kit: Kit,
  rules: Program,
  stageProgram: StageProgram,
  routine: Routine,
  frames: number,
  id: string,
  name: string,
): Take {
  const state = createState(rules);
  const trace = createTrace(rules.rateHz);
  const stage = createStage(stageProgram);
  const input = createFrameInput(rules.controls.length, rules.gates.length);
  const lanes: Record<string, [number, number][]> = {};
  let held: ReadonlySet<string> = new Set();
  reportStage(stageProgram, stage, state);
  for (let frame = 0; frame < frames; frame++) {
    const body = stage.kind === "runner" ? stage.body : undefined;
    const wanted = routine(frame, { body, program: stageProgram });
    input.changeCount = 0;
    rules.controls.forEach((control, c) => {
      if (wanted.has(control.id) === held.has(control.id)) return;
      const isDown = wanted.has(control.id);
      input.changes[input.changeCount++] = c * 2 + (isDown ? 1 : 0);
      (lanes[control.id] ??= []).push([frame, isDown ? 1 : 0]);
    });
    held = new Set(wanted);
    const since = trace.count;
    step(rules, state, input, trace);
    stepStage(stageProgram, stage, rules, state, trace, since);
  }
  return { format: "moss-tap/take", version: 1, id, name, kit: kit.id, rate: kit.rate, frames, lanes };
}
