import { notes, readOutcomes, readTake, type Kit } from "#core";
import { compileRules, runRules } from "#stage";
import type { Job } from "./job";

/**
 * A small picture of a take: bars where controls are down, marks where something happened. Positions as
 * shares of its length, 0 to 1.
 */
export interface TakePicture {
  readonly bars: readonly { readonly control: number; readonly from: number; readonly to: number }[];
  readonly stones: readonly { readonly at: number; readonly isLost: boolean }[];
}

/** The maximum number of items; more cannot be distinguished in a picture of a few hundred pixels. */
const MAX_ITEMS = 400;

/** Computes the picture of a kit's take: its presses, performances or fires, and losses. */
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
    const kind = trace.kind[i];
    if (kind === notes.edge.code && notes.edge.isDown(trace, i) === 1) downAt.set(subject, frame);
    else if (kind === notes.edge.code) {
      if (bars.length < MAX_ITEMS)
        bars.push({ control: subject, from: share(downAt.get(subject) ?? 0), to: share(frame) });
      downAt.delete(subject);
    }
    const isDone = kind === notes.performed.code || kind === notes.fired.code;
    if (isDone && stones.length < MAX_ITEMS) stones.push({ at: share(frame), isLost: false });
  }
  // Controls that are held to the end.
  for (const [control, frame] of downAt) bars.push({ control, from: share(frame), to: 1 });
  const lost = readOutcomes(program, trace).presses.filter(({ outcome }) => outcome === "lost");
  for (const { losses } of lost.slice(0, MAX_ITEMS))
    stones.push({ at: share(losses.at(-1)!.frame), isLost: true });
  return { value: { bars, stones } };
};
