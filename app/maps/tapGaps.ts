import type { InputColumns } from "#core";

/** The gaps between one press and the next of a control in a take, those up to `most`, and when that next one came, in frames. */
export function listTapGaps(
  columns: InputColumns,
  control: number,
  most: number,
): { readonly gap: number; readonly frame: number }[] {
  const gaps: { gap: number; frame: number }[] = [];
  let last = -Infinity;
  for (let k = 0; k < columns.controlFrame.length; k++) {
    const change = columns.controlChange[k]!;
    if (change >> 1 !== control || (change & 1) === 0) continue;
    const frame = columns.controlFrame[k]!;
    if (frame - last <= most) gaps.push({ gap: frame - last, frame });
    last = frame;
  }
  return gaps;
}

/** What a gap between taps, or a press, costs in waiting: frames for each way of answering. */
export function priceOfTaps(answer: "nth" | "each" | "final", gapFrames: number): { readonly waits: number } {
  return { waits: answer === "final" ? gapFrames + 1 : 0 };
}
