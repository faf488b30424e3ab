import { parseFrames, type Kit, type Program, type State, ownValue } from "#core";
import type { Performed } from "../kind";
import { compileEffects } from "../compileEffect";
import { reportGate } from "../reportGate";
import { clockOf, compileBeams, isOverBeam, placeBeam, thrownFrom, type MovingBeam } from "./beams";
import { RUNNER_EFFECTS, type RunnerAct } from "./effects";
import { isBeam, isThin, parseLevel, zoneAt, type Level } from "./level";
import type { RunnerDocument } from "./schema";

/** The body's half width and its height, in tiles. */
export const HALF_WIDTH = 0.34;
export const BODY_HEIGHT = 0.9;
const SKIN = 1e-4;

/** The rates at which a speed changes: accelerating, braking and turning around. */
interface Grip {
  readonly accel: number;
  readonly brake: number;
  readonly turn: number;
}

/**
 * A compiled runner: references are indices into the program's lists, −1 for none; lengths in frames of the
 * kit.
 */
export interface RunnerProgram {
  readonly kind: "runner";
  readonly level: Level;
  readonly beams: readonly MovingBeam[];
  readonly tilePx: number;
  readonly left: number;
  readonly right: number;
  /** The controls that aim a dash. */
  readonly aimUp: number;
  readonly aimDown: number;
  readonly speed: number;
  /** Gates that keep every direction from the body. */
  readonly halts: readonly number[];
  /**
   * The patterns that let a direction through, left and right; undefined if the keys steer. The number of controls is the
   * stride of what is hidden from patterns.
   */
  readonly steering: Readonly<Record<"left" | "right", readonly number[]>> | undefined;
  readonly controlCount: number;
  /**
   * The rates at which the speed changes on the ground and in the air: accelerating, braking and turning
   * around. Tiles per second squared.
   */
  readonly onGround: Grip;
  readonly inAir: Grip;
  readonly lingerFrames: number;
  readonly up: number;
  readonly down: number;
  readonly most: number;
  /** Below this speed, in tiles per second, a share of its gravity is left; 0 and 1 without a hang. */
  readonly hangWithin: number;
  readonly hangShare: number;
  /** How far a rising body is moved aside at the edge of a tile, in tiles. */
  readonly corner: number;
  /** The gate while which it falls at most at `slideMost`. */
  readonly slideGate: number;
  readonly slideMost: number;
  readonly height: RunnerDocument["height"]["by"];
  readonly heightControl: number;
  /** The start and end of a lift, in frames since the launch, and whether it continues after release. */
  readonly liftFrom: number;
  readonly liftFrames: number;
  readonly liftKeeps: boolean;
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
  /** By move: its effects on the body, in their order. */
  readonly acts: readonly (readonly RunnerAct[])[];
}

/** The body's state. Positions are of the centre of its feet, in tiles; speeds in tiles per second. */
export interface RunnerState {
  readonly kind: "runner";
  x: number;
  y: number;
  vx: number;
  vy: number;
  isGrounded: boolean;
  /** The frames of the game clock at which beams are, and the beam that carries it; −1 for none. */
  clock: number;
  beam: number;
  /** Frames since the ground was last below it. */
  airFrames: number;
  isAtWall: boolean;
  isAtCeiling: boolean;
  facing: 1 | -1;
  /** Whether the current jump still depends on a control, and which one; −1 for none. */
  isFollowing: boolean;
  followed: number;
  /** Frames since the launch, by which a lift starts and ends. */
  liftAge: number;
  runSpeed: number;
  /** The direction of its last walk, and the remaining frames of its linger. */
  lingerWay: number;
  lingerLeft: number;
  dashLeft: number;
  /** The speed of a dash that is aimed on this frame, −1 for none; and whether one goes on, without gravity. */
  aimSpeed: number;
  isAimed: boolean;
  /** The frames for which no direction reaches it after a kick. */
  withheldLeft: number;
  /** The speed at which it plunges until it lands, 0 for none. */
  plunge: number;
  /** The side of the wall it last touched: −1 left, 1 right, 0 none yet. */
  wallSide: number;
  stepLeft: number;
  floatLeft: number;
  floatShare: number;
  boostLeft: number;
  boost: number;
  jumps: number;
  falls: number;
  /**
   * Whether its last frame left it unchanged. The next one then does so too, unless a control, a move or the
   * speed changes.
   */
  isStill: boolean;
}

/** Returns the share of its gravity, or of its speed, that a height rule leaves to a jump. */
function shareOf(height: RunnerDocument["height"]): number {
  if (height.by === "cut") return height.to;
  if (height.by === "lift") return height.share ?? 0;
  return height.by === "float" ? height.share : 1;
}

/** Returns the patterns that have a control among those of their attempt or steps. */
function watchersOf(program: Program, id: string): number[] {
  const control = program.controls.findIndex(item => item.id === id);
  return program.patterns.flatMap((pattern, p) =>
    !pattern.isOff && pattern.controls.includes(control) ? [p] : [],
  );
}

/** Compiles a runner from a stage document and the moves' effects. Ids the program lacks become −1. */
export function compileRunner(
  document: RunnerDocument,
  kit: Kit,
  program: Program,
  effects: readonly (readonly Readonly<Record<string, unknown>>[])[],
): RunnerProgram {
  const control = (id: string) => program.controls.findIndex(item => item.id === id);
  const gate = (id: string | undefined) =>
    id === undefined ? -1 : program.gates.findIndex(item => item.id === id);
  const level = parseLevel(document.level);
  const frames = (written: string | undefined) => parseFrames(written ?? "0f", kit.rate, "atLeast") ?? 0;
  const { height } = document;
  const { accel, brake = accel, turn = accel } = document.run;
  const onGround = { accel, brake, turn };
  return {
    kind: "runner",
    level,
    beams: compileBeams(document.beams, kit.rate),
    tilePx: document.tilePx,
    left: control(document.run.left),
    right: control(document.run.right),
    aimUp: control(document.run.up ?? ""),
    aimDown: control(document.run.down ?? ""),
    speed: document.run.speed,
    halts: (document.halts ?? []).map(gate).filter(index => index >= 0),
    steering:
      document.run.steers === "rules"
        ? { left: watchersOf(program, document.run.left), right: watchersOf(program, document.run.right) }
        : undefined,
    controlCount: program.controls.length,
    onGround,
    inAir: { ...onGround, ...document.run.air },
    lingerFrames: frames(document.run.linger),
    up: document.fall.up,
    down: document.fall.down,
    most: document.fall.most,
    hangWithin: document.fall.hang?.within ?? 0,
    hangShare: document.fall.hang?.share ?? 1,
    corner: (document.fall.corner ?? 0) / document.tilePx,
    slideGate: gate(document.fall.slide?.gate),
    slideMost: document.fall.slide?.most ?? 0,
    height: height.by,
    heightControl: "control" in height ? control(height.control) : -1,
    liftFrom: height.by === "lift" ? frames(height.from) : 0,
    liftFrames: height.by === "lift" ? frames(height.for) : 0,
    liftKeeps: height.by === "lift" && height.keeps === true,
    share: shareOf(height),
    gates: {
      footing: gate(document.gates.footing),
      rising: gate(document.gates.rising),
      falling: gate(document.gates.falling),
      wall: gate(document.gates.wall),
      ceiling: gate(document.gates.ceiling),
    },
    zoneGates: level.zoneLetters.map(letter => gate(ownValue(document.zones, letter))),
    lagFrames: frames(document.groundLag),
    acts: effects.map(list => compileEffects(RUNNER_EFFECTS, list, kit.rate)),
  };
}

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

/** Returns the beam that carries the body. A look past the list's end, for none, would slow every frame. */
const beamUnder = ({ beams }: RunnerProgram, { beam }: RunnerState): MovingBeam | undefined =>
  beam < 0 ? undefined : beams[beam];

/** Ends a dash that was aimed, if one goes on. */
function endAim(body: RunnerState): void {
  body.aimSpeed = -1;
  body.isAimed = false;
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

/** Returns whether any tile of a row is of a kind along the body's width. */
function isAlongRow(isKind: typeof isBeam, level: Level, x: number, row: number): boolean {
  return (
    isKind(level, Math.floor(x - HALF_WIDTH + SKIN), row) ||
    isKind(level, Math.floor(x + HALF_WIDTH - SKIN), row)
  );
}

const isRowBlocked = (level: Level, x: number, row: number) => isAlongRow(isBeam, level, x, row);

/** Returns whether a body with its feet at a height is held by a row: one that is solid, or a thin one at its top. */
function isHeldAt(level: Level, x: number, y: number): boolean {
  const row = Math.floor(y - SKIN * 2);
  return isRowBlocked(level, x, row) || (y >= row + 1 - SKIN && isAlongRow(isThin, level, x, row));
}

/**
 * Returns whether any tile of a column is solid along the body's height. The body is less than a tile high,
 * so its ends suffice.
 */
function isColumnBlocked(level: Level, column: number, y: number): boolean {
  return (
    isBeam(level, column, Math.floor(y + SKIN)) || isBeam(level, column, Math.floor(y + BODY_HEIGHT - SKIN))
  );
}

/**
 * Moves the body horizontally until its leading side meets a solid tile. Reads only the columns it enters, at
 * most the level's width.
 */
function moveAcross(level: Level, body: RunnerState, by: number): void {
  body.isAtWall = false;
  const way = Math.sign(by);
  if (!way) return;
  const from = body.x + way * HALF_WIDTH;
  const last = Math.floor(Math.max(-1, Math.min(level.width, from + by)));
  for (let column = Math.floor(from); column !== last;) {
    column += way;
    if (!isColumnBlocked(level, column, body.y)) continue;
    body.x = way > 0 ? column - HALF_WIDTH - SKIN : column + 1 + HALF_WIDTH + SKIN;
    body.vx = 0;
    body.isAtWall = true;
    body.wallSide = way;
    return;
  }
  body.x += by;
}

function fall(level: Level, body: RunnerState, by: number): void {
  const next = body.y + by;
  const last = Math.max(0, Math.floor(next));
  for (let row = Math.min(level.height, Math.floor(body.y)) - 1; row >= last; row--) {
    if (!isRowBlocked(level, body.x, row) && !isAlongRow(isThin, level, body.x, row)) continue;
    body.y = row + 1;
    body.vy = 0;
    body.isGrounded = true;
    return;
  }
  body.y = next;
  body.isGrounded = isHeldAt(level, body.x, next);
}

/**
 * Returns by how far a rising body must be moved aside to pass the tiles of a row, at most `corner` tiles; undefined if it
 * cannot pass.
 */
function findWayPast(level: Level, body: RunnerState, row: number, corner: number): number | undefined {
  const left = Math.floor(body.x - HALF_WIDTH + SKIN);
  const right = Math.floor(body.x + HALF_WIDTH - SKIN);
  // With both of its sides free of the tiles, to the right of the left one or to the left of the right one.
  const ways = [left + 1 + HALF_WIDTH + SKIN - body.x, right - HALF_WIDTH - SKIN - body.x];
  return ways
    .filter(way => Math.abs(way) <= corner + 2 * SKIN)
    .sort((a, b) => Math.abs(a) - Math.abs(b))
    .find(way => {
      const x = body.x + way;
      const lead = Math.floor(x + Math.sign(way) * HALF_WIDTH);
      return !isRowBlocked(level, x, row) && !isColumnBlocked(level, lead, body.y);
    });
}

function rise(level: Level, body: RunnerState, by: number, corner: number): void {
  const head = body.y + BODY_HEIGHT;
  const last = Math.min(level.height - 1, Math.floor(head + by));
  for (let row = Math.max(-1, Math.floor(head)) + 1; row <= last; row++) {
    if (!isRowBlocked(level, body.x, row)) continue;
    const way = corner > 0 ? findWayPast(level, body, row, corner) : undefined;
    if (way !== undefined) {
      body.x += way;
      continue;
    }
    body.y = row - BODY_HEIGHT - SKIN;
    body.vy = 0;
    body.isAtCeiling = true;
    return;
  }
  body.y += by;
}

/** Carries the body along with the beam on which it is, from one moment of the game clock to another. */
function carryBody(program: RunnerProgram, body: RunnerState, from: number, to: number): void {
  const beam = beamUnder(program, body);
  if (!beam) return;
  const { level } = program;
  const [before, now] = [placeBeam(beam, from), placeBeam(beam, to)];
  moveAcross(level, body, now.x - before.x);
  if (now.y > before.y) rise(level, body, now.y - before.y, 0);
  else body.y += now.y - before.y;
}

/** Lets a body that came down from `fromY` during this frame land on a beam that it met on the way. */
function landOnBeam({ beams }: RunnerProgram, body: RunnerState, fromY: number, before: number): void {
  for (let k = 0; k < beams.length; k++) {
    const beam = beams[k]!;
    const [was, now] = [placeBeam(beam, before), placeBeam(beam, body.clock)];
    const isMet = fromY >= was.y - SKIN && body.y <= now.y + SKIN;
    if (!isMet || !isOverBeam(beam, now.x, body.x, HALF_WIDTH)) continue;
    body.y = now.y;
    body.vy = 0;
    body.isGrounded = true;
    body.beam = k;
  }
}

/** Moves the body vertically: on the beam that carries it, or until it meets a tile or a beam. */
function moveVertically(program: RunnerProgram, body: RunnerState, before: number, dt: number): void {
  const own = beamUnder(program, body);
  if (own && body.vy <= 0) {
    const { x, y } = placeBeam(own, body.clock);
    body.isAtCeiling = false;
    body.isGrounded = isOverBeam(own, x, body.x, HALF_WIDTH) && Math.abs(body.y - y) < 4 * SKIN;
    if (body.isGrounded) return;
  }
  body.beam = -1;
  const fromY = body.y;
  moveUp(program, body, body.isGrounded && body.vy <= 0 ? -SKIN : body.vy * dt);
  if (body.vy <= 0) landOnBeam(program, body, fromY, before);
}

/**
 * Moves the body vertically until it meets a solid tile. Reads only the rows it enters, at most the level's
 * height.
 */
function moveUp({ level, corner }: RunnerProgram, body: RunnerState, by: number): void {
  body.isGrounded = body.isAtCeiling = false;
  if (by > 0) rise(level, body, by, corner);
  else fall(level, body, by);
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
