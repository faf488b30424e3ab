import type { RunnerState } from "./body";
import { isHeldAt } from "./collisions";
import type { RunnerProgram } from "./runnerProgram";

/** Creates a body at rest at the level's start. */
export function createRunner(program: RunnerProgram): RunnerState {
  return {
    kind: "runner",
    x: program.level.startX,
    y: program.level.startY,
    vx: 0,
    vy: 0,
    isGrounded: isHeldAt(program.level, program.level.startX, program.level.startY),
    clock: 0,
    beam: -1,
    airFrames: 0,
    isAtWall: false,
    isAtCeiling: false,
    facing: 1,
    isFollowing: false,
    followed: -1,
    liftAge: 0,
    runSpeed: 0,
    lingerWay: 0,
    lingerLeft: 0,
    dashLeft: 0,
    aimSpeed: -1,
    isAimed: false,
    withheldLeft: 0,
    plunge: 0,
    wallSide: 0,
    stepLeft: 0,
    floatLeft: 0,
    floatShare: 1,
    boostLeft: 0,
    boost: 0,
    jumps: 0,
    falls: 0,
    isStill: false,
  };
}
