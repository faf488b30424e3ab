import { clockOfTrace, framesBetween, type Fate } from "#core";
import type { TakeRead } from "./windowDots";

/** Returns whether a pattern saw a press, that is, fired or lapsed with it. */
export function sawPress({ fires, lapses }: Fate, pattern: number): boolean {
  return fires.some(fire => fire.pattern === pattern) || lapses.some(lapse => lapse.pattern === pattern);
}

/**
 * Returns the gaps between consecutive presses that a pattern of taps saw in a take, up to `upTo` frames, on
 * the pattern's clock, each with the frame of the later press.
 */
export function listTapGaps(
  { program, trace, outcomes }: TakeRead,
  pattern: number,
  upTo: number,
): { readonly gap: number; readonly frame: number }[] {
  const clock = clockOfTrace(trace);
  const { isReal } = program.patterns[pattern]!;
  const seen = outcomes.presses.filter(press => sawPress(press, pattern));
  return seen.slice(1).flatMap((press, k) => {
    const gap = framesBetween(clock, isReal, seen[k]!.frame, press.frame);
    return gap <= upTo ? [{ gap, frame: press.frame }] : [];
  });
}

/** Returns the frames a way of answering waits before it answers a tap. */
export function priceOfTaps(answer: "nth" | "each" | "final", gapFrames: number): { readonly waits: number } {
  return { waits: answer === "final" ? gapFrames + 1 : 0 };
}
