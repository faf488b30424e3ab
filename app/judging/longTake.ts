import { BOUNDS, countFrames, fault, formatFinding, type Take } from "#core";

/**
 * Takes longer than this, in frames at the kit's rate, are evaluated in a worker so that the page never
 * blocks.
 */
export const LONG_TAKE_FRAMES = 20_000;

/** Returns whether a take is too long, at a kit's rate, to be evaluated synchronously. */
export function isLong(take: Take, rateHz: number): boolean {
  return countFrames(take, rateHz) > LONG_TAKE_FRAMES;
}

/** Returns why a take cannot be run at a kit's rate at all; empty if it can. */
export function whyTooLong(take: Take, rateHz: number): string {
  const frames = countFrames(take, rateHz);
  if (frames <= BOUNDS.frames) return "";
  return formatFinding(fault("long-at-rate", ["frames"], { frames, rate: rateHz, limit: BOUNDS.frames }));
}
