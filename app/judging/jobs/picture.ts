import { notes, readTake, type Kit } from "#core";
import { compileRules, runRules } from "#stage";
import type { Job } from "./job";

/** A take in a small picture: bars where controls are down, stones where something happened. Shares of its length, 0 to 1. */
export interface TakePicture {
  readonly bars: readonly { readonly control: number; readonly from: number; readonly to: number }[];
  readonly stones: readonly { readonly at: number; readonly isLost: boolean }[];
}

/** More than this cannot be told apart in a picture of a few hundred px. */
const MOST = 400;

/** Draws the picture of a kit's take: its presses, what was performed or fired, and what was lost. */
export const pictureJob: Job<{ readonly kit: Kit }, TakePicture> = ({ kit }, [take]) => {
  const compiled = compileRules(kit);
  if (!compiled.ok || !take) return { value: { bars: [], stones: [] } };
  const { program } = compiled.value;
  const { trace } = runRules(compiled.value, readTake(program, take));
  const share = (frame: number) => frame / Math.max(1, trace.frames);
  const bars: { control: number; from: number; to: number }[] = [];
  const stones: { at: number; isLost: boolean }[] = [];
  const downAt = new Map<number, number>();
  for (let i = 0; i < trace.count; i++) {
    const frame = trace.frame[i]!;
    const subject = trace.subject[i]!;
    const first = trace.payload[trace.at[i]!]!;
    const kind = trace.kind[i];
    if (kind === notes.EDGE && first === 1) downAt.set(subject, frame);
    else if (kind === notes.EDGE && bars.length < MOST)
      bars.push({ control: subject, from: share(downAt.get(subject) ?? 0), to: share(frame) });
    const isLost = kind === notes.LOST && trace.payload[trace.at[i]! + 1] !== notes.BEATEN;
    const isDone = kind === notes.PERFORMED || kind === notes.FIRE;
    if ((isLost || isDone) && stones.length < MOST) stones.push({ at: share(frame), isLost });
  }
  return { value: { bars, stones } };
};
