import { parseFrames } from "#core";
import type { RunnerDocument } from "./runner/schema";

/** The figures of a jump for one length of press. Lengths in tiles, times in frames. */
export interface JumpFacts {
  readonly height: number;
  /** Whether it lands within the longest time that is stepped; otherwise the figures are those up to then. */
  readonly hasLanded: boolean;
  readonly airFrames: number;
  /** The distance covered at run speed. */
  readonly distance: number;
  /** The share of the air time spent in the top quarter of the height. */
  readonly floatiness: number;
  /** The height after each frame in the air. */
  readonly arc: readonly number[];
}

/** The longest air time that is stepped; longer jumps are cut off here. */
export const MAX_AIR_FRAMES = 600;

/**
 * Steps a jump from flat ground as the stage does (semi-implicit Euler at the kit's rate), with the jump's
 * control held for `heldFrames` after the launch. `launch` is in tiles per second.
 */
export function findJumpFacts(
  stage: RunnerDocument,
  rateHz: number,
  launch: number,
  heldFrames: number,
): JumpFacts {
  const dt = 1 / rateHz;
  const { fall, height } = stage;
  const arc: number[] = [];
  let y = 0;
  let vy = launch;
  let isFollowing = height.by !== "fixed" && height.by !== "charged";
  const frames = (written: string | undefined) => parseFrames(written ?? "0f", rateHz, "atLeast") ?? 0;
  const isKept = height.by === "lift" && height.keeps === true;
  const liftFrom = height.by === "lift" ? frames(height.from) : 0;
  const liftTo = height.by === "lift" ? liftFrom + frames(height.for) : 0;
  for (let frame = 0; frame < MAX_AIR_FRAMES; frame++) {
    const isRising = vy > 0;
    const isHeld = frame < heldFrames;
    let gravity = isRising ? fall.up : fall.down;
    if (fall.hang && Math.abs(vy) < fall.hang.within) gravity *= fall.hang.share;
    if (!isRising) isFollowing = false;
    if (isFollowing && !isHeld && !isKept) {
      if (height.by === "cut") vy *= height.to;
      isFollowing = false;
    }
    if (isFollowing && height.by === "lift") {
      if (frame >= liftFrom && frame < liftTo) gravity *= height.share ?? 0;
    } else if (isFollowing && height.by === "float") gravity *= height.share;
    vy = Math.max(-fall.most, vy - gravity * dt);
    y += vy * dt;
    if (y <= 0) break;
    arc.push(y);
  }
  const top = Math.max(0, ...arc);
  const near = arc.filter(at => at >= top * 0.75).length;
  return {
    height: top,
    hasLanded: arc.length < MAX_AIR_FRAMES,
    airFrames: arc.length + 1,
    distance: ((arc.length + 1) / rateHz) * stage.run.speed,
    floatiness: arc.length === 0 ? 0 : near / arc.length,
    arc,
  };
}

/**
 * Returns the height of a fixed jump in closed form for the same stepping: after n frames, n·v −
 * g·n(n+1)/2·dt, at its largest n. `launch` in tiles per second, `gravity` in tiles per second squared.
 */
export function closedHeight(launch: number, gravity: number, rateHz: number): number {
  const n = Math.floor((launch * rateHz) / gravity);
  const at = (frames: number) =>
    (frames * launch - (gravity / rateHz) * ((frames * (frames + 1)) / 2)) / rateHz;
  return Math.max(0, at(n), at(n + 1), at(Math.max(0, n - 1)));
}
