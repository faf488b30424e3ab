// Scripted hands for the sample game: they run to the right and leap near every edge, now early, now late, by a seed.
import { beamAt } from "../public/game/body.mjs";

/** Creates a source of chance from a seed: numbers from 0 to 1. */
function createChance(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Creates hands. Each call returns what they hold on the next frame, from where the body is. */
export function createHands(seed) {
  const chance = createChance(seed);
  const between = (low, high) => low + Math.floor(chance() * (high - low + 1));
  let hold = 0;
  let wait = -1;
  let wasOnBeam = true;
  let leavesAt = between(-6, 8);
  return ({ x, y, rise, isOnBeam }) => {
    const beam = beamAt(x);
    if (hold > 0) hold--;
    if (wait > 0) wait--;
    // Counted from the edge: before it, the presses are early; after it, late.
    if (isOnBeam && beam && wait < 0 && beam.to - x < 1.2)
      wait = Math.max(0, Math.round((beam.to - x) / 0.12) + leavesAt);
    if (!isOnBeam && wasOnBeam && wait < 0) wait = between(8, 20);
    // Near the landing a press comes early, and must be remembered.
    if (!isOnBeam && wait < 0 && rise < 0 && beam && y - beam.height < 1.4 && chance() < 0.15) wait = 0;
    wasOnBeam = isOnBeam;
    if (wait === 0 && hold === 0) {
      hold = between(3, 9);
      wait = -1;
      leavesAt = between(-6, 8);
    }
    return { right: true, leap: hold > 0 };
  };
}
