import type { Program, State } from "#core";
import { reportGate } from "../reportGate";
import { clockOf, isOverBeam, placeBeam } from "./beams";
import { BODY_HEIGHT, HALF_WIDTH, type RunnerState } from "./body";
import { carryBody, isHeldAt, moveAcross, moveVertically } from "./collisions";
import { createRunner } from "./createRunner";
import { zoneAt } from "./level";
import type { RunnerProgram } from "./runnerProgram";

/** Returns whether some of the patterns, by index, is active and sees a control. */
function isSeen(
  patterns: readonly number[],
  control: number,
  { controlCount }: RunnerProgram,
  { mode, veiled }: State,
  rules: Pick<Program, "patterns">,
): boolean {
  return patterns.some(
    p => rules.patterns[p]!.activeIn[mode] === true && veiled[p * controlCount + control] !== 1,
  );
}

/** Returns the direction that reaches the body: −1 left, 1 right, 0 none. */
function directionOf(program: RunnerProgram, state: State, rules: Pick<Program, "patterns">): number {
  for (let k = 0; k < program.halts.length; k++) if (state.gateOpen[program.halts[k]!] === 1) return 0;
  const { left, right, steering } = program;
  let toLeft = state.down[left] === 1;
  let toRight = state.down[right] === 1;
  if (steering) {
    toLeft &&= isSeen(steering.left, left, program, state, rules);
    toRight &&= isSeen(steering.right, right, program, state, rules);
  }
  return Number(toRight) - Number(toLeft);
}

/** Begins a dash of this frame in the direction held; without one, the way the body faces. */
function takeAim(program: RunnerProgram, body: RunnerState, { down }: State): void {
  const isDown = (control: number) => (control >= 0 && down[control] === 1 ? 1 : 0);
  const across = isDown(program.right) - isDown(program.left);
  const up = isDown(program.aimUp) - isDown(program.aimDown);
  const [x, y] = across === 0 && up === 0 ? [body.facing, 0] : [across, up];
  const length = Math.hypot(x, y);
  body.vx = (body.aimSpeed * x) / length;
  body.vy = (body.aimSpeed * y) / length;
  if (across !== 0) body.facing = across > 0 ? 1 : -1;
  body.isFollowing = false;
  body.plunge = body.stepLeft = 0;
  body.aimSpeed = -1;
  body.isAimed = true;
}

/**
 * Returns the gravity on the body in this frame, depending on the jump's control. May change its upward
 * speed.
 */
function gravityOf(program: RunnerProgram, body: RunnerState, isHeld: boolean): number {
  const isRising = body.vy > 0;
  if (!isRising) body.isFollowing = false;
  if (body.isFollowing && !isHeld && !program.liftKeeps) {
    if (program.height === "cut") body.vy *= program.share;
    body.isFollowing = false;
  }
  const isHanging = !body.isGrounded && Math.abs(body.vy) < program.hangWithin;
  const gravity = (isRising ? program.up : program.down) * (isHanging ? program.hangShare : 1);
  const floated = body.floatLeft > 0 ? gravity * body.floatShare : gravity;
  if (!body.isFollowing) return floated;
  if (program.height === "float") return floated * program.share;
  if (program.height !== "lift") return floated;
  const age = body.liftAge++;
  const isLifted = age >= program.liftFrom && age < program.liftFrom + program.liftFrames;
  return isLifted ? floated * program.share : floated;
}

/** Returns the walking direction: the input's, or the last one while a walk lingers. */
function wayOn(program: RunnerProgram, body: RunnerState, way: number): number {
  if (way !== 0) {
    body.lingerWay = way;
    body.lingerLeft = body.runSpeed > 0 ? 0 : program.lingerFrames;
    return way;
  }
  if (body.lingerLeft <= 0) return 0;
  body.lingerLeft--;
  return body.lingerWay;
}

/** Moves the body horizontally for one frame: by running, a step of tiles or a dash. */
function run(program: RunnerProgram, body: RunnerState, way: number, dt: number): void {
  if (body.dashLeft > 0) body.dashLeft--;
  else if (body.withheldLeft > 0) body.withheldLeft--;
  else {
    const wanted =
      body.stepLeft !== 0
        ? Math.sign(body.stepLeft) * program.speed
        : wayOn(program, body, way) * Math.max(program.speed, body.runSpeed);
    const { accel, brake, turn } = body.isGrounded ? program.onGround : program.inAir;
    const rate = wanted === 0 ? brake : wanted * body.vx < 0 ? turn : accel;
    const most = rate * dt;
    body.vx += Math.max(-most, Math.min(most, wanted - body.vx));
  }
  if (body.stepLeft === 0) return moveAcross(program.level, body, body.vx * dt);
  const before = body.x;
  const by = body.vx * dt;
  // A step ends where it was asked to end, and the body rests there.
  const isLast = Math.sign(by) === Math.sign(body.stepLeft) && Math.abs(by) >= Math.abs(body.stepLeft);
  moveAcross(program.level, body, isLast ? body.stepLeft : by);
  body.stepLeft = isLast || body.isAtWall ? 0 : body.stepLeft - (body.x - before);
  if (isLast) body.vx = 0;
}

/** Returns the greatest speed at which it falls on this frame: that of a plunge, of a slide, or its usual one. */
function greatestFall(program: RunnerProgram, body: RunnerState, state: State): number {
  if (program.slideGate >= 0 && state.gateOpen[program.slideGate] === 1) return program.slideMost;
  return body.plunge > 0 ? body.plunge : program.most;
}

/** Changes the vertical speed by gravity and by what lifts the body. */
function pullDown(program: RunnerProgram, body: RunnerState, state: State, dt: number): void {
  const isHeld = body.followed >= 0 && state.down[body.followed] === 1;
  const gravity = gravityOf(program, body, isHeld);
  if (body.boostLeft > 0) {
    body.boostLeft--;
    body.vy += body.boost * dt;
  }
  if (body.floatLeft > 0) body.floatLeft--;
  if (!body.isGrounded || body.vy > 0)
    body.vy = Math.max(-greatestFall(program, body, state), body.vy - gravity * dt);
}

/**
 * Steps the body by one frame: horizontally, then vertically, in fixed steps of the game clock (semi-implicit
 * Euler: the speed changes first, then the position by the new speed). At a speed of 0 nothing moves.
 */
export function stepRunner(
  program: RunnerProgram,
  body: RunnerState,
  state: State,
  rateHz: number,
  rules: Pick<Program, "patterns">,
): void {
  body.isStill = state.speedPercent === 0;
  if (body.isStill) return;
  const isTimed =
    body.withheldLeft > 0 ||
    body.dashLeft > 0 ||
    body.floatLeft > 0 ||
    body.boostLeft > 0 ||
    body.lingerLeft > 0;
  const { x, y, vx, vy, isGrounded, isAtWall, isAtCeiling, airFrames } = body;
  const dt = state.speedPercent / 100 / rateHz;
  const way = body.withheldLeft > 0 ? 0 : directionOf(program, state, rules);
  if (way !== 0) body.facing = way > 0 ? 1 : -1;
  else if (body.runSpeed > 0 && body.withheldLeft === 0 && body.dashLeft === 0) {
    // A run stops at once.
    body.runSpeed = 0;
    body.vx = 0;
  }
  if (body.aimSpeed >= 0) takeAim(program, body, state);
  const before = body.clock;
  body.clock = clockOf(state);
  carryBody(program, body, before, body.clock);
  run(program, body, way, dt);
  if (!body.isAimed) pullDown(program, body, state, dt);
  moveVertically(program, body, before, dt);
  if (body.isAimed && body.dashLeft === 0) {
    body.isAimed = false;
    body.vy = 0;
  }
  if (body.isGrounded) body.vy = body.plunge = 0;
  body.airFrames = body.isGrounded ? 0 : body.airFrames + 1;
  if (body.y < -4) {
    const { jumps, falls, clock } = body;
    Object.assign(body, createRunner(program), { jumps, clock, falls: falls + 1 });
  }
  body.isStill =
    !isTimed &&
    program.beams.length === 0 &&
    body.x === x &&
    body.y === y &&
    body.vx === vx &&
    body.vy === vy &&
    body.isGrounded === isGrounded &&
    body.isAtWall === isAtWall &&
    body.isAtCeiling === isAtCeiling &&
    body.airFrames === airFrames;
}

/** Opens and closes the gates that depend on the body's state, effective on the next frame. */
export function reportRunner(program: RunnerProgram, body: RunnerState, state: State): void {
  const { gates } = program;
  const isLagging = body.airFrames > 0 && body.airFrames <= program.lagFrames;
  reportGate(state, gates.footing, body.isGrounded || isLagging);
  reportGate(state, gates.rising, !body.isGrounded && body.vy > 0);
  reportGate(state, gates.falling, !body.isGrounded && body.vy <= 0);
  reportGate(state, gates.wall, body.isAtWall);
  reportGate(state, gates.ceiling, body.isAtCeiling);
  if (program.zoneGates.length === 0) return;
  const zone = zoneAt(program.level, body.x, body.y + BODY_HEIGHT / 2);
  for (let k = 0; k < program.zoneGates.length; k++) reportGate(state, program.zoneGates[k]!, zone === k + 1);
}

/**
 * Returns whether the body leaves the ground on the next frame if it only keeps running, right (1) or left
 * (−1).
 */
export function losesGround(program: RunnerProgram, body: RunnerState, way: 1 | -1, rateHz: number): boolean {
  if (!body.isGrounded) return false;
  const next = { ...body };
  run(program, next, way, 1 / rateHz);
  const beam = program.beams[body.beam];
  if (beam) return !isOverBeam(beam, placeBeam(beam, body.clock).x, next.x, HALF_WIDTH);
  return !isHeldAt(program.level, next.x, next.y);
}
