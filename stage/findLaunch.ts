import { findJumpFacts, type JumpFacts } from "./jumpFacts";
import type { RunnerDocument } from "./runner/schema";

/** The numbers of a jump that can be computed from its figures. Tiles per second, tiles per second squared. */
export interface Launch {
  readonly speed: number;
  readonly gravityUp: number;
}

/** The numbers that follow when a height is given: both, so that the time to the top stays, or one of them. */
export type Follows = "both" | "speed" | "gravity";

const MAX_NUMBER = 1000;
const HALVINGS = 50;
/** The greatest ratio of launch speed and gravity, in seconds: no jump is longer. */
const MAX_RATIO = 10;
/** Scalings of both numbers until the height fits: one is exact without a hang. */
const SCALINGS = 12;

/** Returns the frames from the launch to the top of a jump, 0 if it does not rise. */
export function framesToTop({ arc }: JumpFacts): number {
  return arc.length === 0 ? 0 : arc.indexOf(Math.max(...arc)) + 1;
}

/** Returns where a rising function reaches zero, between two values. */
function bisect(low: number, high: number, signAt: (value: number) => number): number {
  let [from, to] = [low, high];
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (from + to) / 2;
    if (signAt(middle) < 0) from = middle;
    else to = middle;
  }
  return (from + to) / 2;
}

const limit = (value: number) => Math.min(MAX_NUMBER, Math.max(0, value));

/** Computes a jump by other numbers. */
function createFacts(stage: RunnerDocument, rateHz: number, heldFrames: number) {
  return ({ speed, gravityUp }: Launch) =>
    findJumpFacts({ ...stage, fall: { ...stage.fall, up: gravityUp } }, rateHz, speed, heldFrames);
}

/** Scales both numbers until a jump has a height; the time to its top stays (without a hang, exactly). */
function scaleTo(height: number, from: Launch, factsOf: (launch: Launch) => JumpFacts): Launch {
  let launch = from;
  for (let k = 0; k < SCALINGS; k++) {
    const found = factsOf(launch).height;
    const by = height / found;
    if (found <= 0 || Math.abs(by - 1) < 1e-9) break;
    launch = { speed: limit(launch.speed * by), gravityUp: limit(launch.gravityUp * by) };
  }
  return launch;
}

/**
 * Returns the numbers with which a jump held for `heldFrames` is `height` tiles high. `now`: the present ones, of which
 * some may stay. Numbers stop at 1000; then the height is missed. Source: the stepping of `findJumpFacts`, inverted.
 */
export function launchForHeight(
  stage: RunnerDocument,
  rateHz: number,
  heldFrames: number,
  now: Launch,
  height: number,
  follows: Follows,
): Launch {
  const factsOf = createFacts(stage, rateHz, heldFrames);
  if (follows === "both") return scaleTo(height, now, factsOf);
  if (follows === "speed") {
    const speed = bisect(0, MAX_NUMBER, value => factsOf({ ...now, speed: value }).height - height);
    return { ...now, speed };
  }
  // A lower gravity is a higher jump.
  const gravityUp = bisect(0, MAX_NUMBER, value => height - factsOf({ ...now, gravityUp: value }).height);
  return { ...now, gravityUp };
}

/**
 * Returns the numbers with which a jump keeps its height and reaches its top after `frames` frames, at least 1. The ratio
 * of both is in the middle of those that do.
 */
export function launchForTop(
  stage: RunnerDocument,
  rateHz: number,
  heldFrames: number,
  now: Launch,
  frames: number,
): Launch {
  const factsOf = createFacts(stage, rateHz, heldFrames);
  const { height } = factsOf(now);
  const launchBy = (ratio: number) => scaleTo(height, { speed: ratio, gravityUp: 1 }, factsOf);
  const ratioFor = (wanted: number) =>
    bisect(0, MAX_RATIO, ratio => framesToTop(factsOf(launchBy(ratio))) - wanted);
  return launchBy((ratioFor(frames) + ratioFor(frames + 1)) / 2);
}
