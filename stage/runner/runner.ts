import { parseFrames, stageGate, type Kit, type Program, type State } from "#core";
import { compileRunnerAct, type RunnerAct } from "./effects";
import { isSolid, parseLevel, zoneAt, type Level } from "./level";
import type { RunnerDocument } from "./schema";

/** The body's half width and its height, in tiles. */
export const HALF_WIDTH = 0.34;
export const BODY_HEIGHT = 0.9;
const SKIN = 1e-4;
const SUBSTEP = 0.25;

/** A runner ready to run: names are places in the program's lists, −1 for none; lengths in frames of the kit. */
export interface RunnerProgram {
  readonly kind: "runner";
  readonly level: Level;
  readonly tilePx: number;
  readonly left: number;
  readonly right: number;
  readonly speed: number;
  readonly accel: number;
  readonly up: number;
  readonly down: number;
  readonly most: number;
  readonly height: RunnerDocument["height"]["by"];
  readonly heightControl: number;
  readonly liftFrames: number;
  readonly share: number;
  readonly gates: {
    readonly footing: number;
    readonly rising: number;
    readonly falling: number;
    readonly wall: number;
    readonly ceiling: number;
  };
  readonly zoneGates: readonly number[];
  readonly lagFrames: number;
  /** By move: what it does to the body. */
  readonly acts: readonly (RunnerAct | undefined)[];
}

/** The body. Positions are of the middle of its feet, in tiles; speeds in tiles a second. */
export interface RunnerState {
  readonly kind: "runner";
  x: number;
  y: number;
  vx: number;
  vy: number;
  isGrounded: boolean;
  /** Frames since the ground was last under it. */
  airFrames: number;
  isAtWall: boolean;
  isAtCeiling: boolean;
  facing: 1 | -1;
  /** Has the jump under way still something of the hand's to follow? */
  isFollowing: boolean;
  liftLeft: number;
  runSpeed: number;
  dashLeft: number;
  stepLeft: number;
  floatLeft: number;
  floatShare: number;
  boostLeft: number;
  boost: number;
  jumps: number;
  falls: number;
}

/** Makes a runner of a stage document and the moves' effects. Ids that the program lacks are passed over by −1. */
export function compileRunner(
  document: RunnerDocument,
  kit: Kit,
  program: Program,
  effects: readonly (Readonly<Record<string, unknown>> | undefined)[],
): RunnerProgram {
  const control = (id: string) => program.controls.findIndex(item => item.id === id);
  const gate = (id: string | undefined) =>
    id === undefined ? -1 : program.gates.findIndex(item => item.id === id);
  const level = parseLevel(document.level);
  const { height } = document;
  return {
    kind: "runner",
    level,
    tilePx: document.tilePx,
    left: control(document.run.left),
    right: control(document.run.right),
    speed: document.run.speed,
    accel: document.run.accel,
    up: document.fall.up,
    down: document.fall.down,
    most: document.fall.most,
    height: height.by,
    heightControl: "control" in height ? control(height.control) : -1,
    liftFrames: height.by === "lift" ? (parseFrames(height.for, kit.rate, "atLeast") ?? 0) : 0,
    share: height.by === "float" ? height.share : height.by === "cut" ? height.to : 1,
    gates: {
      footing: gate(document.gates.footing),
      rising: gate(document.gates.rising),
      falling: gate(document.gates.falling),
      wall: gate(document.gates.wall),
      ceiling: gate(document.gates.ceiling),
    },
    zoneGates: level.zoneLetters.map(letter => gate(document.zones?.[letter])),
    lagFrames:
      document.groundLag === undefined ? 0 : (parseFrames(document.groundLag, kit.rate, "atLeast") ?? 0),
    acts: effects.map(effect => compileRunnerAct(effect, kit.rate)),
  };
}

/** A body at rest where the level starts. */
export function createRunner(program: RunnerProgram): RunnerState {
  return {
    kind: "runner",
    x: program.level.startX,
    y: program.level.startY,
    vx: 0,
    vy: 0,
    isGrounded: isSolid(program.level, program.level.startX, program.level.startY - SKIN * 2),
    airFrames: 0,
    isAtWall: false,
    isAtCeiling: false,
    facing: 1,
    isFollowing: false,
    liftLeft: 0,
    runSpeed: 0,
    dashLeft: 0,
    stepLeft: 0,
    floatLeft: 0,
    floatShare: 1,
    boostLeft: 0,
    boost: 0,
    jumps: 0,
    falls: 0,
  };
}

type Act = (program: RunnerProgram, body: RunnerState, act: RunnerAct, output: number) => void;

function leap(program: RunnerProgram, body: RunnerState, speed: number): void {
  body.vy = speed;
  body.isGrounded = false;
  body.isFollowing = program.height !== "fixed" && program.height !== "charged";
  body.liftLeft = program.liftFrames;
  body.jumps++;
}

/** One line an effect; one left out does not compile. */
const ACTS: Readonly<Record<RunnerAct["does"], Act>> = {
  leap: (program, body, { amount }) => leap(program, body, amount),
  output: (program, body, _act, output) => leap(program, body, output),
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
    body.stepLeft = amount;
  },
  dash(_program, body, { amount, frames }) {
    body.vx = amount * body.facing;
    body.dashLeft = frames;
  },
};

/** Acts on the body as a performed move says. `output` is the value of the fire it was performed for, 0 where it has none. */
export function actOnRunner(program: RunnerProgram, body: RunnerState, move: number, output: number): void {
  const act = program.acts[move];
  if (act) ACTS[act.does](program, body, act, output);
}

/** Is there a beam anywhere along the body's width at a height? */
function isBlocked(level: Level, x: number, y: number): boolean {
  return isSolid(level, x - HALF_WIDTH + SKIN, y) || isSolid(level, x + HALF_WIDTH - SKIN, y);
}

/** Is there a beam anywhere along the body's height at a place? */
function isWall(level: Level, x: number, y: number): boolean {
  return (
    isSolid(level, x, y + SKIN) ||
    isSolid(level, x, y + BODY_HEIGHT / 2) ||
    isSolid(level, x, y + BODY_HEIGHT - SKIN)
  );
}

function moveAcross(level: Level, body: RunnerState, by: number): void {
  body.isAtWall = false;
  for (let left = by; left !== 0;) {
    const part = Math.max(-SUBSTEP, Math.min(SUBSTEP, left));
    left -= part;
    const edge = body.x + part + Math.sign(part) * HALF_WIDTH;
    if (isWall(level, edge, body.y)) {
      body.x = part > 0 ? Math.floor(edge) - HALF_WIDTH - SKIN : Math.floor(edge) + 1 + HALF_WIDTH + SKIN;
      body.vx = 0;
      body.isAtWall = true;
      return;
    }
    body.x += part;
  }
}

function moveUp(level: Level, body: RunnerState, by: number): void {
  body.isGrounded = body.isAtCeiling = false;
  for (let left = by; left !== 0;) {
    const part = Math.max(-SUBSTEP, Math.min(SUBSTEP, left));
    left -= part;
    const next = body.y + part;
    if (part < 0 && isBlocked(level, body.x, next)) {
      body.y = Math.floor(next) + 1;
      body.vy = 0;
      body.isGrounded = true;
      return;
    }
    if (part > 0 && isBlocked(level, body.x, next + BODY_HEIGHT)) {
      body.y = Math.floor(next + BODY_HEIGHT) - BODY_HEIGHT - SKIN;
      body.vy = 0;
      body.isAtCeiling = true;
      return;
    }
    body.y = next;
  }
  if (by <= 0) body.isGrounded = isBlocked(level, body.x, body.y - SKIN * 2);
}

/** The gravity on the body this frame, after what the hand does to the jump. May change its upward speed. */
function gravityOf(program: RunnerProgram, body: RunnerState, isHeld: boolean): number {
  const isRising = body.vy > 0;
  if (!isRising) body.isFollowing = false;
  if (body.isFollowing && !isHeld) {
    if (program.height === "cut") body.vy *= program.share;
    body.isFollowing = false;
  }
  if (body.isFollowing && program.height === "lift" && body.liftLeft > 0) {
    body.liftLeft--;
    return 0;
  }
  const gravity = isRising ? program.up : program.down;
  const floated = body.floatLeft > 0 ? gravity * body.floatShare : gravity;
  return body.isFollowing && program.height === "float" ? floated * program.share : floated;
}

/**
 * One frame of the body: across, then up, by fixed steps of the game clock (semi-implicit Euler: the speed changes
 * first, then the place by the new speed). At a speed of 0 nothing moves.
 */
export function stepRunner(program: RunnerProgram, body: RunnerState, state: State, rateHz: number): void {
  if (state.speedPercent === 0) return;
  const dt = state.speedPercent / 100 / rateHz;
  const way = (state.down[program.right] ?? 0) - (state.down[program.left] ?? 0);
  if (way !== 0) body.facing = way > 0 ? 1 : -1;
  else body.runSpeed = 0;
  if (body.dashLeft > 0) body.dashLeft--;
  else {
    const wanted =
      body.stepLeft !== 0
        ? Math.sign(body.stepLeft) * program.speed
        : way * Math.max(program.speed, body.runSpeed);
    const most = program.accel * dt;
    body.vx += Math.max(-most, Math.min(most, wanted - body.vx));
  }
  const before = body.x;
  moveAcross(program.level, body, body.vx * dt);
  if (body.stepLeft !== 0) {
    const left = body.stepLeft - (body.x - before);
    body.stepLeft = Math.sign(left) !== Math.sign(body.stepLeft) || body.isAtWall ? 0 : left;
  }
  const isHeld = program.heightControl >= 0 && state.down[program.heightControl] === 1;
  const gravity = gravityOf(program, body, isHeld);
  if (body.boostLeft > 0) {
    body.boostLeft--;
    body.vy += body.boost * dt;
  }
  if (body.floatLeft > 0) body.floatLeft--;
  if (!body.isGrounded || body.vy > 0) body.vy = Math.max(-program.most, body.vy - gravity * dt);
  moveUp(program.level, body, body.isGrounded && body.vy <= 0 ? -SKIN : body.vy * dt);
  if (body.isGrounded) body.vy = 0;
  body.airFrames = body.isGrounded ? 0 : body.airFrames + 1;
  if (body.y < -4) {
    const { jumps, falls } = body;
    Object.assign(body, createRunner(program), { jumps, falls: falls + 1 });
  }
}

/** Opens and closes the gates that the body's state stands for, from the next frame on. */
export function reportRunner(program: RunnerProgram, body: RunnerState, state: State): void {
  const { gates } = program;
  const set = (gate: number, isOpen: boolean) => {
    if (gate >= 0 && (state.staged[gate] === 1) !== isOpen) stageGate(state, gate, isOpen);
  };
  set(gates.footing, body.isGrounded || (body.airFrames > 0 && body.airFrames <= program.lagFrames));
  set(gates.rising, !body.isGrounded && body.vy > 0);
  set(gates.falling, !body.isGrounded && body.vy <= 0);
  set(gates.wall, body.isAtWall);
  set(gates.ceiling, body.isAtCeiling);
  const zone = zoneAt(program.level, body.x, body.y + BODY_HEIGHT / 2);
  for (let k = 0; k < program.zoneGates.length; k++) set(program.zoneGates[k]!, zone === k + 1);
}
