import { createFrameInput, createTrace, type Take } from "#core";
import type { StageProgram } from "./kinds";
import type { Rules } from "./rules";
import { isSolid } from "./runner/level";
import type { RunnerProgram, RunnerState } from "./runner/runner";
import { createStaging, stepStaging } from "./staging";

/** What a scripted player sees and does on one frame: which controls are down next, decided after the frame before. */
export type Routine = (
  frame: number,
  see: { readonly body: RunnerState | undefined; readonly stage: StageProgram | undefined },
) => ReadonlySet<string>;

/** How far ahead of the feet an edge is looked for, in tiles. */
const AHEAD = 0.05;

/** Does the ground end right before the body, in the way it runs? */
function isAtEdge(program: RunnerProgram, body: RunnerState): boolean {
  const foot = body.x + body.facing * AHEAD;
  return body.isGrounded && !isSolid(program.level, foot, body.y - 0.1);
}

/**
 * A player that runs to the right and presses a control at every edge, so many frames late (early where negative is not
 * possible: the edge is only seen when it is there), for so many frames.
 */
export function leapAtEdges(
  rightId: string,
  leapId: string,
  lateFrames: number,
  heldFrames: number,
): Routine {
  let pressAt = -1;
  return (frame, { body, stage }) => {
    const held = new Set([rightId]);
    if (!body || stage?.kind !== "runner") return held;
    const isAir = !body.isGrounded && body.airFrames === 1 && body.vy <= 0;
    if (pressAt < 0 && (isAtEdge(stage, body) || body.isAtWall || isAir)) pressAt = frame + lateFrames;
    if (pressAt >= 0 && frame >= pressAt) held.add(leapId);
    if (pressAt >= 0 && frame >= pressAt + heldFrames) pressAt = -1;
    return held;
  };
}

/** Lets a scripted player play a kit on its stage, and gives what it played as a take. Chance has no part in it. */
export function playRoutine(rules: Rules, routine: Routine, frames: number, id: string, name: string): Take {
  const { kit, program, stage } = rules;
  const staging = createStaging(rules);
  const trace = createTrace(program.rateHz);
  const input = createFrameInput(program.controls.length, program.gates.length);
  const lanes: Record<string, [number, number][]> = {};
  let held: ReadonlySet<string> = new Set();
  for (let frame = 0; frame < frames; frame++) {
    const body = staging.bodies?.kind === "runner" ? staging.bodies : undefined;
    const wanted = routine(frame, { body, stage });
    input.changeCount = 0;
    program.controls.forEach((control, c) => {
      if (wanted.has(control.id) === held.has(control.id)) return;
      const isDown = wanted.has(control.id);
      input.changes[input.changeCount++] = c * 2 + (isDown ? 1 : 0);
      (lanes[control.id] ??= []).push([frame, isDown ? 1 : 0]);
    });
    held = new Set(wanted);
    stepStaging(rules, staging, input, trace);
  }
  return { format: "moss-tap/take", version: 1, id, name, kit: kit.id, rate: kit.rate, frames, lanes };
}
