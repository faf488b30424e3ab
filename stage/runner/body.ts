import type { MovingBeam } from "./beams";
import type { RunnerProgram } from "./runnerProgram";

/** The body's half width and its height, in tiles. */
export const HALF_WIDTH = 0.34;
export const BODY_HEIGHT = 0.9;

/** The gap kept from tiles at a side; heights closer than a few of it count as the same. In tiles. */
export const SKIN = 1e-4;

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

/** Returns the beam that carries the body. A look past the list's end, for none, would slow every frame. */
export const beamUnder = ({ beams }: RunnerProgram, { beam }: RunnerState): MovingBeam | undefined =>
  beam < 0 ? undefined : beams[beam];

/** Ends a dash that was aimed, if one goes on. */
export function endAim(body: RunnerState): void {
  body.aimSpeed = -1;
  body.isAimed = false;
}
