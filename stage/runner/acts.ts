import type { Performed } from "../kind";
import { thrownFrom } from "./beams";
import { beamUnder, endAim, SKIN, type RunnerState } from "./body";
import { isRowBlocked } from "./collisions";
import type { RunnerAct } from "./effects";
import type { RunnerProgram } from "./runnerProgram";

type Act = (program: RunnerProgram, body: RunnerState, act: RunnerAct, performed: Performed) => void;

/**
 * Starts a jump. Its height follows the control that made it, or the stage's own if that is among several.
 */
function leap(program: RunnerProgram, body: RunnerState, speed: number, { held }: Performed): void {
  endAim(body);
  body.vy = speed;
  const beam = beamUnder(program, body);
  if (beam) {
    const thrown = thrownFrom(beam, body.clock);
    body.vx += thrown.x;
    body.vy += thrown.y;
  }
  body.isGrounded = false;
  body.beam = -1;
  body.followed = held.includes(program.heightControl) ? program.heightControl : (held.at(-1) ?? -1);
  const isVaried = program.height !== "fixed" && program.height !== "charged";
  body.isFollowing = isVaried && (body.followed >= 0 || program.liftKeeps);
  body.liftAge = 0;
  body.jumps++;
}

/** The action of each effect; a missing one does not compile. */
const ACTS: Readonly<Record<RunnerAct["does"], Act>> = {
  leap: (program, body, { amount }, performed) => leap(program, body, amount, performed),
  output: (program, body, _act, performed) => leap(program, body, performed.output, performed),
  lift(_program, body, { amount, frames }) {
    body.boost = amount;
    body.boostLeft = frames;
  },
  float(_program, body, { amount, frames }) {
    body.floatShare = amount;
    body.floatLeft = frames;
  },
  run(_program, body, { amount }) {
    body.runSpeed = amount;
  },
  step(_program, body, { amount }) {
    // A step asked for during a step is added to what is left of it.
    body.stepLeft += amount;
  },
  dash(_program, body, { amount, frames }) {
    endAim(body);
    body.vx = amount * body.facing;
    body.dashLeft = frames;
  },
  aim(_program, body, { amount, frames }) {
    body.aimSpeed = amount;
    body.dashLeft = frames;
  },
  plunge(_program, body, { amount }) {
    if (body.isGrounded) return;
    body.plunge = amount;
    body.vy = -amount;
  },
  kick(program, body, { amount, more, frames }, performed) {
    const away = body.wallSide === 0 ? -body.facing : -body.wallSide;
    leap(program, body, more, performed);
    body.vx = amount * away;
    body.facing = away > 0 ? 1 : -1;
    body.withheldLeft = frames;
    body.dashLeft = body.stepLeft = body.plunge = 0;
    endAim(body);
  },
  drop({ level }, body) {
    // With its feet inside the tile, the body falls on.
    const isHeld = isRowBlocked(level, body.x, Math.floor(body.y - SKIN * 2));
    if (!body.isGrounded || (isHeld && body.beam < 0)) return;
    body.beam = -1;
    body.y -= SKIN * 4;
    body.isGrounded = false;
  },
  stop(_program, body) {
    body.vx = body.vy = body.runSpeed = 0;
    body.dashLeft = body.stepLeft = body.lingerLeft = body.withheldLeft = body.plunge = 0;
    endAim(body);
  },
};

/** Applies a performed move to the body. */
export function actOnRunner(program: RunnerProgram, body: RunnerState, performed: Performed): void {
  for (const act of program.acts[performed.move]!) {
    body.isStill = false;
    ACTS[act.does](program, body, act, performed);
  }
}
