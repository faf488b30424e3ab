import type { Routine } from "../scriptedPlayer";
import { losesGround } from "./stepRunner";

/**
 * Creates a player that runs right and presses a control at every edge, held for `holdFrames`. `lateFrames`
 * count from the last frame with ground below the body, as a coyote does: 0 is that frame, 1 the first
 * without ground. At a wall it presses at once.
 */
export function leapAtEdges(
  rightId: string,
  leapId: string,
  lateFrames: number,
  heldFrames: number,
): Routine {
  let pressAt = -1;
  return (frame, { bodies: body, stage, rateHz }) => {
    const held = new Set([rightId]);
    if (body?.kind !== "runner" || stage?.kind !== "runner") return held;
    // Gates see the body's state on the next frame, so the ground is reported up to and including that one.
    if (pressAt < 0 && body.isAtWall) pressAt = frame;
    else if (pressAt < 0 && losesGround(stage, body, 1, rateHz)) pressAt = frame + lateFrames;
    if (pressAt >= 0 && frame >= pressAt) held.add(leapId);
    if (pressAt >= 0 && frame >= pressAt + heldFrames) pressAt = -1;
    return held;
  };
}
