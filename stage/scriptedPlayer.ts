import { createFrameInput, createTrace, type Take } from "#core";
import type { StageProgram } from "./kinds";
import type { Rules } from "./rules";
import { losesGround, type RunnerState } from "./runner/runner";
import { createStaging, stepStaging } from "./staging";

/** What a scripted player sees and does on one frame: which controls are down next, decided after the frame before. */
export type Routine = (
  frame: number,
  see: {
    readonly body: RunnerState | undefined;
    readonly stage: StageProgram | undefined;
    readonly rateHz: number;
  },
) => ReadonlySet<string>;

/**
 * A player that runs to the right and presses a control at every edge, held for so many frames. `lateFrames` are counted
 * from the last frame with ground under the body, as a coyote is: 0 is on that frame, 1 on the first without. At a wall it
 * presses at once.
 */
export function leapAtEdges(
  rightId: string,
  leapId: string,
  lateFrames: number,
  heldFrames: number,
): Routine {
  let pressAt = -1;
  return (frame, { body, stage, rateHz }) => {
    const held = new Set([rightId]);
    if (!body || stage?.kind !== "runner") return held;
    // What the body does on this frame is seen by the gates on the next: the ground is there up to and with that one.
    if (pressAt < 0 && body.isAtWall) pressAt = frame;
    else if (pressAt < 0 && losesGround(stage, body, 1, rateHz)) pressAt = frame + lateFrames;
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
    const wanted = routine(frame, { body, stage, rateHz: program.rateHz });
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
