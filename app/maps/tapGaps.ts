import type { InputColumns } from "#core";

/** The gaps between one press and the next of a control in a take, in frames, those up to `most`. */
export function listTapGaps(columns: InputColumns, control: number, most: number): number[] {
  const gaps: number[] = [];
  let last = -Infinity;
  for (let k = 0; k < columns.controlFrame.length; k++) {
    const change = columns.controlChange[k]!;
    if (change >> 1 !== control || (change & 1) === 0) continue;
    const frame = columns.controlFrame[k]!;
    if (frame - last <= most) gaps.push(frame - last);
    last = frame;
  }
  return gaps;
}

/** What a gap between taps, or a press, costs in waiting: frames for each way of answering. */
export function priceOfTaps(answer: "nth" | "each" | "final", gapFrames: number): { readonly waits: number } {
  return { waits: answer === "final" ? gapFrames + 1 : 0 };
}
