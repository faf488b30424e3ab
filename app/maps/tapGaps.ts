import { clockOfTrace, framesBetween, type Fate } from "#core";
import type { TakeRead } from "./windowDots";

/** Did a pattern hear a press: did it fire or lapse with it? */
export function wasHeard({ fires, lapses }: Fate, pattern: number): boolean {
  return fires.some(fire => fire.pattern === pattern) || lapses.some(lapse => lapse.pattern === pattern);
}

/**
 * Returns the gaps between one press and the next of those that a pattern of taps heard in a take, by the pattern's clock,
 * those up to `upTo` frames, each with the frame of the later press.
 */
export function listTapGaps(
  { program, trace, outcomes }: TakeRead,
  pattern: number,
  upTo: number,
): { readonly gap: number; readonly frame: number }[] {
  const clock = clockOfTrace(trace);
  const { isReal } = program.patterns[pattern]!;
  const heard = outcomes.presses.filter(press => wasHeard(press, pattern));
  return heard.slice(1).flatMap((press, k) => {
    const gap = framesBetween(clock, isReal, heard[k]!.frame, press.frame);
    return gap <= upTo ? [{ gap, frame: press.frame }] : [];
  });
}

/** Returns the frames that a way of answering waits before it answers a tap. */
export function priceOfTaps(answer: "nth" | "each" | "final", gapFrames: number): { readonly waits: number } {
  return { waits: answer === "final" ? gapFrames + 1 : 0 };
}
